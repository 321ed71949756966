import { byName } from './byName.ts'
import type { Taxon } from './taxon.ts'

/** Where good gardeners differ over a kind, by the beginnings of its name: both sides in a sentence. General knowledge. */
const opinions: Readonly<Record<string, string>> = {
  Agapanthus:
    'Some keep it tight in its pot for more flowers; others pot it on each third year and feed it, and get as many.',
  Buxus:
    'Clipped in early summer, or in late summer alone: the later cut stays crisp through winter, the earlier heals better from blight.',
  'Clematis montana':
    'Some never cut it; others cut it over after each bloom, so that it does not become a roof.',
  Cotinus: 'Cut to the base each spring for leaves, or left to flower as smoke: one cannot have both.',
  Dahlia:
    'Lifted each autumn, or mulched thickly where it stands: where the ground hardly freezes both do; wet winters decide it.',
  Echinacea: 'Some divide it every few years; others never, since pieces often die, and sow it anew.',
  'Euphorbia characias':
    'Flowered stems out as they fade, or when the seed has fallen, if seedlings are wanted.',
  Helleborus:
    'All old leaves off in midwinter, or spotted ones alone: the first stops leaf spot, the second feeds the plant longer.',
  Hemerocallis: 'Divided in spring or after its flowers: in hard winters spring is safer, elsewhere both do.',
  Hosta:
    'Divided in spring as the noses show, or in late summer: spring pieces look poor for a season, summer ones root before winter.',
  'Hydrangea arborescens': 'To the ground for huge heads, or to a frame that holds smaller ones up.',
  'Hydrangea macrophylla':
    'Old heads off in autumn, or left over winter to shelter the buds: where frosts are late the second is safer.',
  'Iris germanica':
    'Leaves trimmed to fans in summer, or left to feed the rhizomes: trimmed where leaf spot is about.',
  Lavandula:
    'Cut once, hard into the green, after its flowers; or lightly then and again in spring, where winters are cold.',
  Magnolia: 'Pruned hardly at all, or in high summer when cuts close: never in winter, on that all agree.',
  Miscanthus: 'Divided in spring alone, by most; some do it in early autumn where winters are mild.',
  Narcissus:
    'Leaves left until they are yellow, or cut six weeks after the flowers: trials find little between them.',
  Paeonia:
    'Moved in early autumn by all; some do so in early spring if they must, and wait a year longer for flowers.',
  Penstemon: 'Cut down in spring by most; in autumn where winters hardly freeze.',
  'Rosa Bush group':
    'Hard to a few buds for large flowers, or lightly for more of them; trials of the light cut did no worse.',
  'Rosa Shrub group': 'Shortened by a third each winter, or hardly touched and thinned from the base.',
  'Salvia yangii': 'Cut low in early spring; some leave a hand of wood where winters kill it back.',
  Sambucus: 'Cut to the base for leaf, or thinned for flower and berry.',
  'Tulipa Garden group':
    'Lifted and replaced each year for show, or planted deep and left: most kinds dwindle within three.',
  'Verbena bonariensis':
    'Cut in autumn for tidiness, or in spring: left standing it shelters its crown and seeds about.',
  Vinca: 'Clipped over each second spring, or never: unclipped it mounds.',
  Wisteria: 'Fed lightly each spring, or never: on rich ground feed makes leaf.',
  Yucca: 'Old leaves pulled off each spring, or left as a skirt that keeps frost off.',
}

/** Where good gardeners differ over a kind; undefined where little is disputed. */
export const opinionsOn = ({ botanical }: Pick<Taxon, 'botanical'>): string | undefined =>
  byName(opinions, botanical)
