import { containerEndpoints, planEndpoints, type PotView } from '@border/contract'
import {
  components,
  countIn,
  counted,
  dayMonth,
  dayMonthYear,
  fillEnds,
  listed,
  madeUp,
  portraitOf,
  potRoles,
  recipeFor,
  recipes,
  remarksOn,
  seasonFrom,
  sunIn,
  type ComponentName,
  type FillEnd,
  type FillSeason,
  type IsoDate,
  type PotRole,
  type RecipeName,
  type Taxon,
  type Year,
} from '@border/core'
import { useId, useMemo, useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Segments } from '../frame/Segments.tsx'
import type { Sprites } from '../frontView/sprites.ts'
import { useBench } from '../now/queries.ts'
import { useTaxa } from '../plants/queries.ts'
import { TaxonSelect } from '../plants/TaxonSelect.tsx'
import { PotPortrait } from './PotPortrait.tsx'
import { Proposals } from './Proposals.tsx'
import { litresText, roleWords } from './potWords.ts'
import { stageOf } from './stage.ts'
import { bestAfter, frameFor, type RowPot } from './usePotRow.ts'

interface Props {
  pot: RowPot
  of: PotView
  year: Year
  sprites: Sprites
  coldestC: number | null
  onClose: () => void
}

/** A kind that is to go in. */
interface Incoming {
  key: string
  taxon: Taxon
  count: number
  role: PotRole
  benchId?: string
}

type Leaving = 'stays' | 'bench' | 'compost'

/** Where winters are not known none is taken to be hard. */
const MILD_C = 10

const RENEWED = [
  { value: '1', label: 'all of it new' },
  { value: '0.33', label: 'the top third new' },
  { value: '0', label: 'none: as it is' },
] as const

/** A container filled anew: what comes out, the mix, what goes in; seen and judged before anything is kept. */
export function FillForm(props: Props) {
  const { view } = useGardenContext()
  return (
    <Answered of={[useTaxa(), useBench(view.garden.id)]}>
      {(taxa, bench) => <Form {...props} taxa={taxa} bench={bench} />}
    </Answered>
  )
}

type Bench = ReturnType<typeof useBench>['data'] & object

function Form({
  pot,
  of,
  year,
  sprites,
  coldestC,
  onClose,
  taxa,
  bench,
}: Props & { taxa: readonly Taxon[]; bench: Bench }) {
  const { view, today } = useGardenContext()
  const before = of.fills[0]?.emptiedOn === null ? of.fills[0] : undefined
  const [on, setOn] = useState(today)
  const [season, setSeason] = useState<FillSeason>(() => seasonFrom(today, year.south))
  const [name, setName] = useState('')
  const [leaving, setLeaving] = useState<Readonly<Record<string, Leaving>>>({})
  const [incoming, setIncoming] = useState<readonly Incoming[]>([])
  const [renewed, setRenewed] = useState<(typeof RENEWED)[number]['value']>(before ? '0.33' : '1')
  const [endedBy, setEndedBy] = useState<FillEnd | ''>('')
  const [recipe, setRecipe] = useState<RecipeName | ''>('')
  const [note, setNote] = useState('')
  const [endedNote, setEndedNote] = useState('')
  const fill = useGardenWrite(containerEndpoints.fill, { gardenId: view.garden.id }, (_, { editId }) => (
    <>
      {pot.name} is filled. <TakeBack gardenId={view.garden.id} editId={editId} />
    </>
  ))

  const stay = pot.plants.filter((p) => (leaving[p.id] ?? 'stays') === 'stays')
  const together = [
    ...stay.map((p) => ({ id: p.id, taxon: p.taxon, count: p.count, role: p.role, plantedOn: p.plantedOn })),
    ...incoming.map((p) => ({ id: p.key, taxon: p.taxon, count: p.count, role: p.role, plantedOn: on })),
  ]
  const kinds = together.map((p) => p.taxon)
  const suggested = recipeFor(kinds, season)
  const mix = recipes[recipe || suggested]
  const site = {
    sunHours: sunIn(of.light, season, year.south),
    coldestC: coldestC ?? MILD_C,
    season,
    overWinter: season === 'winter',
  }
  const remarks = remarksOn(
    together.map((p) => ({
      taxon: p.taxon,
      count: p.count,
      role: potRoles.find((r) => r === p.role) ?? 'filler',
    })),
    pot.vessel,
    site,
  )
  const says = name.trim() || `${season === 'summer' ? 'Summer' : 'Winter'} ${on.slice(0, 4)}`
  const wrong =
    on > today
      ? 'That day lies ahead: a fill is recorded once it is made.'
      : before && on <= before.filledOn
        ? `What is in it was filled on ${dayMonthYear(before.filledOn)}: say a later day.`
        : undefined
  const send = () =>
    fill.mutate(
      {
        containerId: pot.id,
        replaces: before?.id ?? null,
        on,
        name: says,
        season,
        mix: mix.parts.map((p) => ({ ...p })),
        renewed: Number(renewed),
        endedBy: endedBy || null,
        out: pot.plants.flatMap((p) => {
          const to = leaving[p.id] ?? 'stays'
          return to === 'stays' ? [] : [{ plantingId: p.id, to }]
        }),
        in: incoming.map(({ taxon, count, role, benchId }) => ({
          taxonBotanical: taxon.botanical,
          count,
          role,
          source: benchId ? ('moved' as const) : ('bought' as const),
          ...(benchId && { benchId }),
        })),
        ...(note.trim() && { note: note.trim() }),
        ...(endedNote.trim() && { endedNote: endedNote.trim() }),
      },
      { onSuccess: onClose },
    )
  const add = (taxon: Taxon, more: Partial<Incoming> = {}) =>
    setIncoming((all) => [...all, newcomer(taxon, pot, all, more)])
  return (
    <form
      className="fill-form"
      aria-label={`Fill ${pot.name}`}
      onSubmit={(e) => {
        e.preventDefault()
        if (!wrong) send()
      }}
    >
      <Preview {...{ pot, together, year, sprites }} on={bestAfter(on, season, year)} />
      <div className="stack">
        {pot.plants.length > 0 && (
          <fieldset>
            <legend>What comes out</legend>
            {pot.plants.map((p) => (
              <div key={p.id} className="spread">
                <span>
                  {p.count} {p.taxon.common}
                </span>
                <Segments<Leaving>
                  label={`What becomes of ${p.taxon.common}`}
                  value={leaving[p.id] ?? 'stays'}
                  options={[
                    { value: 'stays', label: 'stays' },
                    { value: 'bench', label: 'to the bench' },
                    { value: 'compost', label: 'compost' },
                  ]}
                  onChange={(to) => setLeaving((l) => ({ ...l, [p.id]: to }))}
                />
              </div>
            ))}
            {before && (
              <>
                <div className="spread">
                  <span>How it ended</span>
                  <Choose<FillEnd | ''>
                    label="How it ended"
                    value={endedBy}
                    options={[
                      { value: '', label: 'not said' },
                      ...fillEnds.map((e) => ({ value: e, label: e })),
                    ]}
                    onChange={setEndedBy}
                  />
                </div>
                <Labelled label="How it went">
                  {(id) => (
                    <input
                      id={id}
                      type="text"
                      maxLength={400}
                      value={endedNote}
                      onChange={(e) => setEndedNote(e.target.value)}
                    />
                  )}
                </Labelled>
              </>
            )}
          </fieldset>
        )}
        <fieldset>
          <legend>What goes in</legend>
          {incoming.map((p) => (
            <IncomingRow
              key={p.key}
              it={p}
              onChange={(change) =>
                setIncoming((all) => all.map((o) => (o.key === p.key ? { ...o, ...change } : o)))
              }
              onRemove={() => setIncoming((all) => all.filter((o) => o.key !== p.key))}
            />
          ))}
          <div className="row">
            <TaxonSelect
              label="Add a kind"
              placeholder="Add a kind"
              style={{ width: 260 }}
              onChange={(botanical) => {
                const taxon = taxa.find((t) => t.botanical === botanical)
                if (taxon) add(taxon)
              }}
            />
            {bench.map((b) => {
              const taxon = taxa.find((t) => t.botanical === b.botanical)
              const isIn = incoming.some((p) => p.benchId === b.id)
              return (
                taxon &&
                !isIn && (
                  <Button
                    key={b.id}
                    size="small"
                    onClick={() => add(taxon, { benchId: b.id, count: b.count })}
                  >
                    {b.count} {taxon.common} off the bench
                  </Button>
                )
              )
            })}
          </div>
          <ul className="plain-list pot-remarks" aria-live="polite">
            {remarks.map((r) => (
              <li key={r.says} className={r.isGrave ? 'late' : undefined}>
                {r.says}
              </li>
            ))}
            {together.length > 1 && remarks.length === 0 && <li>They go together, and suit the pot.</li>}
          </ul>
        </fieldset>
      </div>
      <div className="stack">
        <fieldset>
          <legend>Mix</legend>
          <Segments<FillSeason>
            label="Season it is for"
            value={season}
            options={[
              { value: 'summer', label: 'for summer' },
              { value: 'winter', label: 'for winter' },
            ]}
            onChange={setSeason}
          />
          <Choose<RecipeName | ''>
            label="Mix"
            value={recipe}
            options={[
              { value: '', label: `${recipes[suggested].name} (suits what grows in it)` },
              ...(Object.keys(recipes) as RecipeName[])
                .filter((r) => r !== suggested)
                .map((r) => ({ value: r, label: recipes[r].name })),
            ]}
            onChange={setRecipe}
          />
          <Choose label="How much of it is new" value={renewed} options={RENEWED} onChange={setRenewed} />
          <NewMix of={of} parts={mix.parts} renewed={Number(renewed)} />
        </fieldset>
        <fieldset>
          <legend>When</legend>
          <Labelled label="On">
            {(id) => (
              <input
                id={id}
                type="date"
                value={on}
                max={today}
                required
                onChange={(e) => setOn(e.target.value)}
              />
            )}
          </Labelled>
          <Labelled label="Called">
            {(id) => (
              <input
                id={id}
                type="text"
                maxLength={60}
                placeholder={says}
                value={name}
                onChange={(e) => setName(e.target.value)}
              />
            )}
          </Labelled>
          <Labelled label="Note">
            {(id) => (
              <input
                id={id}
                type="text"
                maxLength={400}
                value={note}
                onChange={(e) => setNote(e.target.value)}
              />
            )}
          </Labelled>
        </fieldset>
        {wrong && <p className="late">{wrong}</p>}
        <div className="row">
          <Button look="primary" type="submit" loading={fill.isPending} disabled={wrong !== undefined}>
            Keep it as filled
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </div>
      <Proposals
        taxa={taxa}
        sprites={sprites}
        asked={{
          vessel: pot.vessel,
          site,
          season,
          on,
          year,
          have: new Set(bench.map((b) => b.botanical)),
          harmlessTo: [],
        }}
        onTake={({ potted }) =>
          setIncoming(
            potted.map((p, i) => {
              const inHand = bench.find((b) => b.botanical === p.taxon.botanical)
              return { ...p, key: `${p.taxon.botanical} ${i}`, ...(inHand && { benchId: inHand.id }) }
            }),
          )
        }
      />
    </form>
  )
}

/** A kind as it goes in: what there is none of yet in the middle, then what fills, each for its share of the mix. */
function newcomer(taxon: Taxon, pot: RowPot, all: readonly Incoming[], more: Partial<Incoming>): Incoming {
  const hasFocal = all.some((p) => p.role === 'focal')
  const role: PotRole =
    !hasFocal && taxon.heightM >= 0.7 * pot.vessel.depthM
      ? 'focal'
      : taxon.habit === 'mat'
        ? 'trailer'
        : 'filler'
  const count = countIn(taxon, role, pot.vessel)
  return { key: `${taxon.botanical} ${all.length} ${Date.now()}`, taxon, count, role, ...more }
}

function IncomingRow({
  it,
  onChange,
  onRemove,
}: {
  it: Incoming
  onChange: (change: Partial<Incoming>) => void
  onRemove: () => void
}) {
  return (
    <div className="spread">
      <span>
        <input
          type="number"
          className="fill-count"
          min={1}
          max={200}
          required
          aria-label={`How many ${it.taxon.common}`}
          value={it.count}
          onChange={(e) =>
            onChange({ count: Math.max(1, Math.min(200, Math.round(Number(e.target.value)) || 1)) })
          }
        />{' '}
        {it.taxon.common}
      </span>
      <span className="row">
        <Choose<PotRole>
          label={`Where ${it.taxon.common} stands`}
          value={it.role}
          options={potRoles.map((r) => ({ value: r, label: roleWords[r] }))}
          onChange={(role) => onChange({ role })}
        />
        <Button size="small" onClick={onRemove}>
          Not this
        </Button>
      </span>
    </div>
  )
}

function Preview({
  pot,
  together,
  year,
  sprites,
  on,
}: Pick<Props, 'pot' | 'year' | 'sprites'> & {
  together: Parameters<typeof portraitOf>[1]
  on: IsoDate
}) {
  const portrait = useMemo(
    () => portraitOf(pot.vessel, together, { on, year }),
    [pot.vessel, together, on, year],
  )
  const frame = frameFor([portrait])
  return (
    <figure className="fill-preview pots-stage" style={stageOf(frame)}>
      <PotPortrait
        {...{ portrait, sprites }}
        wideM={portrait.wideM}
        frame={frame}
        label={`${pot.name} as it would be on ${dayMonth(on)}`}
      />
      <figcaption className="soft">As it would be on {dayMonth(on)}</figcaption>
    </figure>
  )
}

/** What is put in, and of a mix that stays in part what it lacks. */
function NewMix({
  of,
  parts,
  renewed,
}: {
  of: PotView
  parts: (typeof recipes)[RecipeName]['parts']
  renewed: number
}) {
  const known: readonly { name: ComponentName; parts: number }[] =
    of.fills[0]?.mix ?? components.flatMap((c) => parts.filter((p) => p.name === c.name))
  const litres = of.mixLitres
  const added = madeUp({ litres: (1 - renewed) * litres, parts: known }, parts, litres)
  if (added.length === 0) return <p className="soft">What is in it stays; nothing is put to it.</p>
  return (
    <p>
      {listed(added.map((p) => `${litresText(p.litres)} of ${p.name}`))}
      {renewed < 1 && ' put to what stays'}: {counted(Math.round(renewed * litres), 'litre')} in all.
      {renewed < 1 && of.fills.length === 0 && ' What is in it is taken for the same mix.'}
    </p>
  )
}

function Labelled({ label, children }: { label: string; children: (id: string) => React.ReactNode }) {
  const id = useId()
  return (
    <div className="spread">
      <label htmlFor={id}>{label}</label>
      {children(id)}
    </div>
  )
}

/** A fill is one change: taken back as one. */
function TakeBack({ gardenId, editId }: { gardenId: string; editId: string }) {
  const undo = useGardenWrite(planEndpoints.undo, { gardenId, editId }, 'Taken back.')
  return (
    <Button size="small" onClick={() => undo.mutate({})}>
      Take it back
    </Button>
  )
}
