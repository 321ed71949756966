import type { OfferView } from '@border/contract'
import { materialNames } from '@border/core'
import { randomUUID } from 'node:crypto'

/** What made-up suppliers ask, minor unit of one currency: in a 9 cm pot, and in a two-litre pot where they have it. */
const plants: readonly (readonly [botanical: string, small: number, large?: number])[] = [
  ['Calamagrostis × acutiflora', 480, 890],
  ['Helenium autumnale', 420, 790],
  ['Panicum virgatum', 520, 940],
  ['Kniphofia uvaria', 450],
  ['Rudbeckia fulgida', 380, 720],
  ['Persicaria amplexicaulis', 460],
  ['Hemerocallis Hybrid group', 490, 850],
  ['Geum chiloense', 360],
  ['Sesleria autumnalis', 390],
  ['Veronicastrum virginicum', 470],
  ['Symphyotrichum novae-angliae', 410, 760],
  ['Amsonia tabernaemontana', 520],
  ['Molinia caerulea', 440],
  ['Phlox paniculata', 430, 790],
  ['Iris sibirica', 370],
  ['Geranium × magnificum', 390],
  ['Alchemilla mollis', 340],
]

const FIRST = 'Saltmarsh Nursery'
const SECOND = 'Upper Lane Growers'
const YARD = 'The town’s compost yard'

/** Prices of the demo, asked on two days of its year. */
export const demoOffers = (): OfferView[] => [
  ...plants.map(([item, small, large]) =>
    offer(FIRST, item, '2026-03-12', [
      ['9 cm pot', 1, small],
      ['tray of 6', 6, Math.round(small * 5.2)],
      ...(large ? [['2 l pot', 1, large] as const] : []),
    ]),
  ),
  ...plants
    .slice(0, 6)
    .map(([item, small]) => offer(SECOND, item, '2026-08-20', [['9 cm pot', 1, small - 35]])),
  offer(SECOND, 'Camassia leichtlinii', '2026-08-20', [
    ['bag of 10', 10, 650],
    ['bag of 50', 50, 2700],
  ]),
  offer(SECOND, materialNames.filler, '2026-08-20', [['tray of 12', 12, 960]]),
  offer(SECOND, 'Tagetes patula', '2026-08-20', [['tray of 12', 12, 840]]),
  offer(YARD, materialNames.compost, '2026-09-01', [
    ['bag of 50 l', 50, 550],
    ['load of 1000 l', 1000, 6800],
  ]),
  offer(YARD, materialNames.mulch, '2026-09-01', [
    ['bag of 60 l', 60, 620],
    ['load of 1000 l', 1000, 5900],
  ]),
]

const offer = (
  supplier: string,
  item: string,
  pricedOn: string,
  packs: readonly (readonly [name: string, holds: number, price: number])[],
): OfferView => ({
  id: randomUUID(),
  supplier,
  item,
  pricedOn,
  packs: packs.map(([name, holds, price]) => ({ name, holds, price })),
})
