import type { BenchView, ContainersView, OfferView, SpareView } from '@border/contract'
import {
  addDays,
  dayMonth,
  daysBetween,
  portraitOf,
  potRoleOf,
  remarksOn,
  tenths,
  type FillSeason,
  type IsoDate,
  type PottedPlant,
  type ProposalAsked,
  type Taxon,
} from '@border/core'
import { useMemo, useState } from 'react'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import type { Sprites } from '../frontView/sprites.ts'
import { useBench } from '../now/queries.ts'
import { useTaxa } from '../plants/queries.ts'
import { usePrices } from '../rework/queries.ts'
import { ComesOut, GoesIn, MixFields, WhenFields } from './FillFields.tsx'
import { PotPortrait } from './PotPortrait.tsx'
import { backdrops, NO_WISHES, ProposalWishes, type PotWishes } from './ProposalWishes.tsx'
import { Proposals } from './Proposals.tsx'
import { Relay } from './Relay.tsx'
import { useSpare } from './queries.ts'
import { inHandOf, sparesFor, type Spare } from './spares.ts'
import { stageOf } from './stage.ts'
import { useFill, type Fill, type FillDesign, type FilledPot } from './useFill.tsx'
import { bestAfter, frameFor, type RowPot } from './usePotRow.ts'

interface Props extends FilledPot {
  sprites: Sprites
  /** All containers: others may be filled alike. */
  row: readonly RowPot[]
  all: ContainersView
  onClose: () => void
  /** It is kept, and the next that is to be alike is to be filled. */
  onNext: (potId: string, design: FillDesign) => void
}

/** A container filled anew: what comes out, the mix, what goes in; seen and judged before anything is kept. */
export function FillForm(props: Props) {
  const { view } = useGardenContext()
  return (
    <Answered of={[useTaxa(), useBench(view.garden.id), usePrices(), useSpare(view.garden.id)]}>
      {(taxa, bench, offers, spare) => <Form {...props} {...{ taxa, bench, offers, spare }} />}
    </Answered>
  )
}

interface FormProps extends Props {
  taxa: readonly Taxon[]
  bench: readonly BenchView[]
  offers: readonly OfferView[]
  spare: SpareView
}

function Form({ sprites, row, all, onClose, onNext, taxa, bench, offers, spare, ...filled }: FormProps) {
  const { pot, of, year, design } = filled
  const [wishes, setWishes] = useState({ ...NO_WISHES, alike: design?.next ?? [] })
  const fill = useFill(filled, ({ season, recipe, name, incoming }) => {
    const [next, ...rest] = wishes.alike
    if (next === undefined) return onClose()
    const bought = incoming.map(({ spare: _, ...plant }) => plant)
    onNext(next, { season, recipe, name, incoming: bought, next: rest })
  })
  const { on, season } = fill.said
  const spares = useMemo(() => sparesFor(pot.id, on, bench, spare), [pot.id, on, bench, spare])
  const alike = row.flatMap((p) => {
    const light = all.pots.find((v) => v.id === p.id)?.light
    return light && wishes.alike.includes(p.id) ? [{ pot: p, light }] : []
  })
  return (
    <form
      className="fill-form"
      aria-label={`Fill ${pot.name}`}
      onSubmit={(e) => {
        e.preventDefault()
        if (!fill.wrong) fill.send()
      }}
    >
      <Preview
        {...{ pot, year, sprites }}
        together={fill.together}
        best={bestAfter(on, season, year)}
        from={on}
      />
      <div className="stack">
        <ComesOut pot={pot} fill={fill} />
        <GoesIn {...{ taxa, spares, offers, fill }} />
        {alike.map((a) => (
          <InAlike key={a.pot.id} pot={a.pot} light={a.light} fill={fill} />
        ))}
      </div>
      <div className="stack">
        <MixFields of={of} fill={fill} offers={offers} />
        <WhenFields fill={fill} />
        {fill.wrong && <p className="late">{fill.wrong}</p>}
        <div className="row">
          <Button look="primary" type="submit" loading={fill.isSending} disabled={fill.wrong !== undefined}>
            {alike.length > 0 ? `Keep it, then ${alike[0]!.pot.name}` : 'Keep it as filled'}
          </Button>
          <Button onClick={onClose}>Cancel</Button>
        </div>
      </div>
      <fieldset className="fill-proposed">
        <legend>Proposed for it</legend>
        <ProposalWishes
          wishes={wishes}
          onSay={(change) => setWishes((w) => ({ ...w, ...change }))}
          others={row.filter((p) => p.id !== pot.id)}
        />
        <Proposed
          {...{ taxa, sprites, spares, offers, fill, pot, year, wishes }}
          lights={[of.light, ...alike.map((a) => a.light)]}
        />
      </fieldset>
    </form>
  )
}

/** Fillings proposed for it and those that are to be alike, for this season and for two years. */
function Proposed({
  taxa,
  sprites,
  spares,
  offers,
  fill,
  pot,
  year,
  wishes,
  lights,
}: Pick<FormProps, 'taxa' | 'sprites' | 'offers' | 'pot' | 'year'> & {
  fill: Fill
  spares: readonly Spare[]
  wishes: PotWishes
  lights: readonly ContainersView['pots'][number]['light'][]
}) {
  const { view } = useGardenContext()
  const { on, season } = fill.said
  const sitesFor = (of: FillSeason) => lights.map((l) => fill.siteOf(l, of))
  const asked: ProposalAsked = {
    vessel: pot.vessel,
    sites: sitesFor(season),
    season,
    on,
    year,
    have: inHandOf(spares),
    harmlessTo: wishes.harmlessTo,
    fullness: wishes.fullness,
    offers,
    budget: wishes.budget,
    seenFromM: wishes.seenFromM,
    behind: wishes.behind ? backdrops[wishes.behind] : undefined,
  }
  return (
    <>
      <Proposals {...{ taxa, sprites, asked }} onTake={(proposal) => fill.take(proposal, spares)} />
      {view.climate && (
        <Relay
          {...{ taxa, sprites }}
          asked={{
            ...asked,
            climate: view.climate,
            sites: { summer: sitesFor('summer'), winter: sitesFor('winter') },
          }}
        />
      )}
    </>
  )
}

/** What the same filling meets in another container, whose light may be another. */
function InAlike({ pot, light, fill }: { pot: RowPot; light: Parameters<Fill['siteOf']>[0]; fill: Fill }) {
  const site = fill.siteOf(light)
  const remarks = remarksOn(
    fill.together.map((p) => ({ taxon: p.taxon, count: p.count, role: potRoleOf(p.role) })),
    pot.vessel,
    site,
  )
  return (
    <section>
      <h3>
        Alike in {pot.name}{' '}
        <small className="soft">
          {tenths(site.sunHours)} h of sun, here {tenths(fill.site.sunHours)} h
        </small>
      </h3>
      <ul className="plain-list pot-remarks">
        {remarks.map((r) => (
          <li key={r.says} className={r.isGrave ? 'late' : undefined}>
            {r.says}
          </li>
        ))}
        {remarks.length === 0 && <li>The same suits it there.</li>}
      </ul>
    </section>
  )
}

/** Weeks that a filling can be looked at over. */
const MOST_WEEKS = 40

function Preview({
  pot,
  together,
  year,
  sprites,
  best,
  from,
}: Pick<Props, 'pot' | 'year' | 'sprites'> & {
  together: readonly PottedPlant[]
  /** The day on which it is at its best, and the one it is filled on. */
  best: IsoDate
  from: IsoDate
}) {
  const usual = Math.round(daysBetween(from, best) / 7)
  const [said, say] = useState<number>()
  const on = said === undefined ? best : addDays(from, 7 * said)
  const portrait = useMemo(
    () => portraitOf(pot.vessel, together, { on, year }),
    [pot.vessel, together, on, year],
  )
  const fullest = useMemo(
    () => portraitOf(pot.vessel, together, { on: best, year }),
    [pot.vessel, together, best, year],
  )
  const frame = frameFor([fullest])
  return (
    <figure className="fill-preview pots-stage" style={stageOf(frame)}>
      <PotPortrait
        {...{ portrait, sprites }}
        wideM={fullest.wideM}
        frame={frame}
        label={`${pot.name} as it would be on ${dayMonth(on)}`}
      />
      <figcaption className="soft">
        <input
          type="range"
          min={0}
          max={Math.max(MOST_WEEKS, usual)}
          value={said ?? usual}
          aria-label="Weeks after it is filled"
          aria-valuetext={dayMonth(on)}
          onChange={(e) => say(Number(e.target.value))}
        />
        As it would be on {dayMonth(on)}
      </figcaption>
    </figure>
  )
}
