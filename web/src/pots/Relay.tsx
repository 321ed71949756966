import {
  capitalised,
  centimetres,
  counted,
  dayMonthYear,
  listed,
  moneyWords,
  portraitOf,
  type RelayAsked,
  type RelayLeg,
  type SavedTo,
  type Taxon,
} from '@border/core'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import type { Sprites } from '../frontView/sprites.ts'
import { PotPortrait } from './PotPortrait.tsx'
import { proposing } from './Proposals.tsx'
import { bestAfter, frameFor } from './usePotRow.ts'

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
  const [state, setState] = useState<{ of: string; legs?: RelayLeg[]; failed?: boolean }>()
  // What was found for other wishes says nothing of these.
  const of = JSON.stringify([asked.season, asked.on, asked.harmlessTo, asked.vessel])
  const now = state?.of === of ? state : undefined
  const ask = () => {
    setState({ of })
    proposing('relay', (worker) => worker.relay(taxa, asked))
      .then((legs) => setState({ of, legs }))
      .catch(() => setState({ of, failed: true }))
  }
  const isWaiting = now !== undefined && !now.legs && !now.failed
  return (
    <div className="proposals">
      <Button size="small" onClick={ask} loading={isWaiting}>
        Propose two years
      </Button>
      {now?.failed && <p className="late">They could not be worked out. Ask again.</p>}
      {now?.legs?.length === 0 && <p>No kinds of the library suit this pot and its seasons.</p>}
      {now?.legs && now.legs.length > 0 && (
        <ol className="proposals-row plain-list" aria-label="Two years of fills">
          {now.legs.map((leg) => (
            <li key={leg.in.from} className="proposals-one">
              <Leg {...{ leg, asked, sprites }} />
            </li>
          ))}
        </ol>
      )}
    </div>
  )
}

const SMALL = 0.5

function Leg({ leg, asked, sprites }: { leg: RelayLeg; asked: RelayAsked; sprites: Sprites }) {
  const plants = leg.potted.map((p) => ({ ...p, id: p.taxon.botanical, plantedOn: leg.in.from }))
  const portrait = portraitOf(asked.vessel, plants, {
    on: bestAfter(leg.in.from, leg.season, asked.year),
    year: asked.year,
  })
  const { height, floor, pxPerM } = frameFor([portrait])
  const names = listed(leg.potted.map((p) => `${p.count} ${p.taxon.common}`))
  return (
    <>
      <PotPortrait
        {...{ portrait, sprites }}
        wideM={portrait.wideM}
        frame={{ height: SMALL * height, floor: SMALL * floor, pxPerM: SMALL * pxPerM }}
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
      {leg.cost && (
        <small className="soft">
          {moneyWords(leg.cost.price)} to buy
          {leg.cost.unpriced.length > 0 &&
            `, without ${listed(leg.cost.unpriced)}: nobody has a price for them`}
          .
        </small>
      )}
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
