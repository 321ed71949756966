import type { PotView } from '@border/contract'
import {
  counted,
  fillEnds,
  followed,
  listed,
  madeUp,
  potRoles,
  recipes,
  schoolNote,
  shoppingList,
  type FillEnd,
  type FillSeason,
  type Offer,
  type PotRole,
  type RecipeName,
  type Taxon,
} from '@border/core'
import { useId } from 'react'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Segments } from '../frame/Segments.tsx'
import { TaxonSelect } from '../plants/TaxonSelect.tsx'
import { costWords, litresText, roleWords } from './potWords.ts'
import type { Spare } from './spares.ts'
import { RENEWED, type Fill, type Incoming, type Leaving } from './useFill.tsx'
import type { RowPot } from './usePotRow.ts'

/** What comes out, and how the fill that it was of ended. */
export function ComesOut({ pot, fill: { said, say, before, becomesOf } }: { pot: RowPot; fill: Fill }) {
  if (pot.plants.length === 0) return null
  return (
    <fieldset>
      <legend>What comes out</legend>
      {pot.plants.map((p) => (
        <div key={p.id} className="spread">
          <span>
            {p.count} {p.taxon.common}
          </span>
          <Segments<Leaving>
            label={`What becomes of ${p.taxon.common}`}
            value={becomesOf(p.id)}
            options={[
              { value: 'stays', label: 'stays' },
              { value: 'bench', label: 'to the bench' },
              { value: 'compost', label: 'compost' },
            ]}
            onChange={(to) => say({ leaving: { ...said.leaving, [p.id]: to } })}
          />
        </div>
      ))}
      {before && (
        <>
          <div className="spread">
            <span>How it ended</span>
            <Choose<FillEnd | ''>
              label="How it ended"
              value={said.endedBy}
              options={[{ value: '', label: 'not said' }, ...fillEnds.map((e) => ({ value: e, label: e }))]}
              onChange={(endedBy) => say({ endedBy })}
            />
          </div>
          <Line
            label="How it went"
            most={400}
            value={said.endedNote}
            onChange={(endedNote) => say({ endedNote })}
          />
        </>
      )}
    </fieldset>
  )
}

/** What goes in, from the library and of what is in hand, and what there is to say of it together. */
export function GoesIn({
  taxa,
  spares,
  offers,
  fill: { said, add, change, remove, together, remarks },
}: {
  taxa: readonly Taxon[]
  /** What is in hand. */
  spares: readonly Spare[]
  offers: readonly Offer[]
  fill: Fill
}) {
  const kindOf = new Map(taxa.map((t) => [t.botanical, t]))
  return (
    <fieldset>
      <legend>What goes in</legend>
      {said.incoming.map((p) => (
        <IncomingRow
          key={p.key}
          it={p}
          offers={offers}
          onChange={(c) => change(p.key, c)}
          onRemove={() => remove(p.key)}
        />
      ))}
      <div className="row">
        <TaxonSelect
          label="Add a kind"
          placeholder="Add a kind"
          style={{ width: 260 }}
          onChange={(botanical) => {
            const taxon = kindOf.get(botanical)
            if (taxon) add(taxon)
          }}
        />
        {spares.map((spare) => {
          const taxon = kindOf.get(spare.botanical)
          const isIn = said.incoming.some((p) => p.spare?.key === spare.key)
          return (
            taxon &&
            !isIn && (
              <Button key={spare.key} size="small" onClick={() => add(taxon, spare)}>
                {counted(spare.count, 'plant')} of {taxon.common} {spare.whence}
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
  )
}

function IncomingRow({
  it,
  offers,
  onChange,
  onRemove,
}: {
  it: Incoming
  offers: readonly Offer[]
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
          max={it.spare?.count ?? 200}
          required
          aria-label={`How many ${it.taxon.common}`}
          value={it.count}
          onChange={(e) =>
            onChange({
              count: Math.max(1, Math.min(it.spare?.count ?? 200, Math.round(Number(e.target.value)) || 1)),
            })
          }
        />{' '}
        {it.taxon.common} <small className="soft">{comesAs(it, offers)}</small>
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

/** What it is bought in where that is cheapest: `2 trays of 6`; whence it comes where it is not bought. */
function comesAs({ taxon, count, spare }: Incoming, offers: readonly Offer[]): string {
  if (spare) return spare.whence
  const { suppliers } = shoppingList([{ item: taxon.botanical, count, spareShare: 0 }], offers)
  const packs = suppliers[0]?.lines[0]?.cover.packs ?? []
  return packs.length > 0 ? `as ${listed(packs.map((p) => `${p.number} × ${p.pack.name}`))}` : ''
}

/** The mix, for which half of the year, and how much of it is new. */
export function MixFields({
  of,
  fill: { said, say, suggested, mix },
  offers,
}: {
  of: PotView
  fill: Fill
  offers: readonly Offer[]
}) {
  const { schools } = useGardenContext().view
  return (
    <fieldset>
      <legend>Mix</legend>
      <Segments<FillSeason>
        label="Season it is for"
        value={said.season}
        options={[
          { value: 'summer', label: 'for summer' },
          { value: 'winter', label: 'for winter' },
        ]}
        onChange={(season) => say({ season })}
      />
      <Choose<RecipeName | ''>
        label="Mix"
        value={said.recipe}
        options={[
          { value: '', label: `${recipes[suggested].name} (suits what grows in it)` },
          ...(Object.keys(recipes) as RecipeName[])
            .filter((r) => r !== suggested)
            .map((r) => ({ value: r, label: recipes[r].name })),
        ]}
        onChange={(recipe) => say({ recipe })}
      />
      <Choose
        label="How much of it is new"
        value={said.renewed}
        options={RENEWED}
        onChange={(renewed) => say({ renewed })}
      />
      <small className="soft">
        {schoolNote('pot-mix', followed(schools, 'pot-mix'))} Root balls of annuals:{' '}
        {schoolNote('pot-roots', followed(schools, 'pot-roots'))}
      </small>
      <NewMix of={of} parts={mix.parts} renewed={Number(said.renewed)} offers={offers} />
    </fieldset>
  )
}

/** What is put in, and of a mix that stays in part what it lacks. */
function NewMix({
  of,
  parts,
  renewed,
  offers,
}: {
  offers: readonly Offer[]
  of: PotView
  parts: (typeof recipes)[RecipeName]['parts']
  renewed: number
}) {
  const known = of.fills[0]?.mix ?? parts
  const litres = of.mixLitres
  const added = madeUp({ litres: (1 - renewed) * litres, parts: known }, parts, litres)
  const { price, unpriced } = shoppingList(
    added.map((p) => ({ item: p.name, count: Math.ceil(p.litres), spareShare: 0 })),
    offers,
  )
  if (added.length === 0) return <p className="soft">What is in it stays; nothing is put to it.</p>
  return (
    <p>
      {listed(added.map((p) => `${litresText(p.litres)} of ${p.name}`))}
      {renewed < 1 && ' put to what stays'}: {counted(Math.round(renewed * litres), 'litre')} in all.
      {renewed < 1 && of.fills.length === 0 && ' What is in it is taken for the same mix.'}
      {price > 0 && ` ${costWords({ price, unpriced: unpriced.map((u) => u.item) })}`}
    </p>
  )
}

/** When it was filled, and what that is called. */
export function WhenFields({ fill: { said, say, name, today } }: { fill: Fill }) {
  return (
    <fieldset>
      <legend>When</legend>
      <Labelled label="On">
        {(id) => (
          <input
            id={id}
            type="date"
            value={said.on}
            max={today}
            required
            onChange={(e) => say({ on: e.target.value })}
          />
        )}
      </Labelled>
      <Line
        label="Called"
        most={60}
        placeholder={name}
        value={said.name}
        onChange={(name) => say({ name })}
      />
      <Line label="Note" most={400} value={said.note} onChange={(note) => say({ note })} />
    </fieldset>
  )
}

/** A line of text. */
function Line({
  label,
  most,
  placeholder,
  value,
  onChange,
}: {
  label: string
  most: number
  placeholder?: string
  value: string
  onChange: (value: string) => void
}) {
  return (
    <Labelled label={label}>
      {(id) => (
        <input
          id={id}
          type="text"
          maxLength={most}
          placeholder={placeholder}
          value={value}
          onChange={(e) => onChange(e.target.value)}
        />
      )}
    </Labelled>
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
