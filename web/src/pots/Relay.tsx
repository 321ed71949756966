import {
  capitalised,
  centimetres,
  counted,
  dayMonthYear,
  listed,
  type RelayAsked,
  type RelayLeg,
  type SavedTo,
  type Taxon,
} from '@border/core'
import { Button } from '../frame/Button.tsx'
import type { Sprites } from '../frontView/sprites.ts'
import { costWords } from './potWords.ts'
import { namesOf, SmallPortrait } from './SmallPortrait.tsx'
import { useProposed } from './useProposed.ts'

/** Two years of fills for a container that is never empty for longer than it must be. */
export function Relay({
  taxa,
  asked,
  sprites,
}: {
  taxa: readonly Taxon[]
  asked: RelayAsked
  sprites: Sprites
}) {
  const { found, failed, isWaiting, ask } = useProposed('relay', asked, (worker) => worker.relay(taxa, asked))
  return (
    <div className="proposals">
      <Button size="small" onClick={ask} loading={isWaiting}>
        Propose two years
      </Button>
      {failed && <p className="late">They could not be worked out. Ask again.</p>}
      {found?.length === 0 && <p>No kinds of the library suit this pot and its seasons.</p>}
      {found && found.length > 0 && (
        <ol className="proposals-row plain-list" aria-label="Two years of fills">
          {found.map((leg) => (
            <li key={leg.in.from} className="proposals-one">
              <Leg {...{ leg, asked, sprites }} />
            </li>
          ))}
        </ol>
      )}
    </div>
  )
}

function Leg({ leg, asked, sprites }: { leg: RelayLeg; asked: RelayAsked; sprites: Sprites }) {
  const names = namesOf(leg.potted)
  return (
    <>
      <SmallPortrait
        {...{ asked, sprites }}
        potted={leg.potted}
        on={leg.in.from}
        season={leg.season}
        label={`For ${leg.season}: ${names}`}
      />
      <p>
        <b>
          {capitalised(leg.season)}, in from {dayMonthYear(leg.in.from)} to {dayMonthYear(leg.in.to)}.
        </b>{' '}
        {capitalised(names)}
        {leg.bulbs.length > 0 &&
          `; below them ${listed(leg.bulbs.map((b) => `${b.count} ${b.taxon.common} at ${centimetres(b.depthM)}`))}, the deepest first`}
        .
      </p>
      <p>
        {leg.over
          ? `Over between ${dayMonthYear(leg.over.from)} and ${dayMonthYear(leg.over.to)}.`
          : 'It stays on until the next goes in.'}{' '}
        {leg.emptyDays > 0 && `Then it stands empty for ${counted(leg.emptyDays, 'day')}.`} {savedWords(leg)}
      </p>
      {leg.cost && <small className="soft">{costWords(leg.cost)}</small>}
    </>
  )
}

const toWords: Record<SavedTo, string> = {
  'kept in the pot': 'may stay in it',
  'planted out': 'can be planted out',
  'wintered indoors': 'can be wintered indoors',
  compost: 'for the compost',
}

/** What becomes of its kinds: `Bay may stay in it; viola for the compost.` */
function savedWords({ saved, potted }: RelayLeg): string {
  const nameOf = new Map(potted.map((p) => [p.taxon.botanical, p.taxon.common]))
  const by = (to: SavedTo) => saved.filter((s) => s.to === to).map((s) => nameOf.get(s.botanical)!)
  const said = (Object.keys(toWords) as SavedTo[]).flatMap((to) =>
    by(to).length > 0 ? [`${listed(by(to))} ${toWords[to]}`] : [],
  )
  return said.length > 0 ? `Afterwards ${said.join('; ')}.` : ''
}
