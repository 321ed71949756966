import { priceEndpoints, type OfferView, type ReworkView, type SaidScheme } from '@border/contract'
import {
  capitalised,
  counted,
  dayMonthYear,
  fillerOf,
  type KindOf,
  kindsOf,
  materialUnits,
  minutesText,
  moneyWords,
  packsWords,
  wantedWords,
  type Place,
  plantingM2,
  pocketsFor,
  pricedItems,
  reckonScheme,
  type SchemeTotals,
  seasonOfFeeding,
  setWords,
  shoppingCsv,
  staysOf,
} from '@border/core'
import { Input } from 'antd'
import { sum } from 'd3-array'
import dayjs from 'dayjs'
import { useState } from 'react'
import { usePracticeWrite } from '../api/writes.ts'
import { useSignedIn } from '../api/session.ts'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useCanChange } from './canChange.ts'
import { DownloadCsv } from './DownloadCsv.tsx'
import { Figure } from '../frame/Figure.tsx'
import { SoilAndWater } from './SoilAndWater.tsx'
import { useInHand, useInHands, usePrices, useRelocation, useRelocations } from './queries.ts'
import { operationWords } from './reworkWords.ts'
import { schemeNames } from './schemeDraft.ts'
import './rework.css'
import { DayPicker } from '../units/DayPicker.tsx'

interface Props {
  said: SaidScheme
  onSay: (change: Partial<SaidScheme>) => void
  place: Place
  kindOf: KindOf
  rework: ReworkView
  schemeId: string
}

/** What the scheme takes: plants, materials, hours, money; beside the other schemes. */
export function ReckoningPanel({ said, onSay, place, kindOf, rework, schemeId }: Props) {
  const canChange = useCanChange()
  const { totals, allTotals, plantedM2 } = useTotals(rework, said, schemeId, kindOf, place)
  const { shopping, layers, work, years } = totals
  const filler = fillerOf(said, kindOf)
  return (
    <>
      <p>
        <b>{counted(totals.plants, 'plant')}</b>, {totals.bought} of them to be bought;{' '}
        {minutesText(totals.minutes)} of work.{' '}
        {shopping.suppliers.length === 0 && said.hourPrice === null
          ? 'No price is known yet: say some below.'
          : `${moneyWords(totals.price)} over three years${shopping.unpriced.length > 0 ? `, without ${counted(shopping.unpriced.length, 'thing')} that nobody has a price for` : ''}.`}
      </p>
      {shopping.oldestPrice && (
        <p>
          <small>The oldest price it rests on was asked on {dayMonthYear(shopping.oldestPrice)}.</small>
        </p>
      )}
      {allTotals.length > 1 && <Compared rework={rework} allTotals={allTotals} />}
      <h2>Shopping list</h2>
      <Shopping totals={totals} />
      <div className="row">
        <DownloadCsv name="shopping-list.csv" text={() => shoppingCsv(totals)}>
          Shopping list as CSV
        </DownloadCsv>
      </div>
      <Prices items={pricedItems(totals, filler)} />
      <h2>Spread on it</h2>
      <table className="rework-table">
        <tbody>
          {layers.map((l) => (
            <tr key={l.item}>
              <td>{l.item}</td>
              <td className="figure">{Math.ceil(l.litres / 10) * 10} l</td>
              <td className="figure">{counted(l.barrows, 'barrow')}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {canChange && (
        <div className="rework-wishes">
          <span>Compost dug in</span>
          <Depth label="Compost dug in" value={said.compostM} onSay={(compostM) => onSay({ compostM })} />
          <span>Mulch</span>
          <Depth label="Mulch" value={said.mulchM} onSay={(mulchM) => onSay({ mulchM })} />
          <span>Spare plants</span>
          <Figure
            label="Spare plants, per cent"
            value={Math.round(100 * said.spareShare)}
            min={0}
            max={100}
            unit="%"
            onSay={(v) => onSay({ spareShare: v! / 100 })}
          />
          <span>An hour’s work costs</span>
          <Figure
            label="What an hour’s work costs"
            value={said.hourPrice === null ? null : said.hourPrice / 100}
            min={0}
            max={10_000}
            canBeEmpty
            onSay={(v) => onSay({ hourPrice: v === null ? null : Math.round(100 * v) })}
          />
        </div>
      )}
      <Bulbs said={said} place={place} kindOf={kindOf} />
      <h2>Hours</h2>
      <table className="rework-table">
        <tbody>
          {work.map((w) => (
            <tr key={w.operation}>
              <td>
                {operationWords[w.operation]}
                <br />
                <small>{w.working}</small>
              </td>
              <td className="figure">{minutesText(w.minutes)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <h2>Three years</h2>
      <table className="rework-table">
        <thead>
          <tr>
            <th>Year</th>
            <th>Open ground</th>
            <th>{filler ? capitalised(filler.common) : 'Fillers'}</th>
            <th className="figure">Cost</th>
          </tr>
        </thead>
        <tbody>
          {years.map((y) => (
            <tr key={y.year}>
              <td>{y.year}</td>
              <td>{y.openM2.toFixed(1)} m²</td>
              <td>
                {y.fillers || 'none'}
                {y.divides.length > 0 && <small> · to divide: {y.divides.join(', ')}</small>}
              </td>
              <td className="figure">{moneyWords(y.price)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <SoilAndWater areaM2={plantedM2} place={place} said={said} onSay={onSay} />
      <small className="soft">
        Hours are working figures until jobs here were timed; growth is that of usual nursery plants.
      </small>
    </>
  )
}

/** What this scheme takes, and every other one of the place. */
function useTotals(
  rework: ReworkView,
  said: SaidScheme,
  schemeId: string,
  kindOf: KindOf,
  { id: placeId, areaM2: bedM2 }: Place,
) {
  const { view, today } = useGardenContext()
  const { plantings } = view
  const { data: offers = [] } = usePrices()
  const schemes = rework.schemes.map((s) => (s.id === schemeId ? said : s.said))
  const own = rework.schemes.findIndex((s) => s.id === schemeId)
  // Of the one in hand what was known before stands until it is worked out anew.
  const { data: relocated } = useRelocation(view.garden.id, said)
  const { data: has } = useInHand(view.garden.id, placeId, said)
  const relocations = useRelocations(view.garden.id, schemes).with(own, relocated)
  const inHand = useInHands(view.garden.id, placeId, schemes).with(own, has)
  const staysM2 = schemes.map((of, i) => sum(staysOf(plantings, placeId, of, relocations[i]), plantingM2))
  const allTotals = schemes.map((of, i) =>
    reckonScheme(of, kindOf, {
      plantings,
      relocated: relocations[i],
      offers,
      bedM2,
      staysM2: staysM2[i]!,
      inHand: inHand[i] ?? [],
      feedingSeason: seasonOfFeeding(today, view.garden.latitude < 0),
    }),
  )
  return { totals: allTotals[own]!, allTotals, plantedM2: Math.max(0, bedM2 - staysM2[own]!) }
}

/** Bulbs that come up between the rest, with how they are set. */
function Bulbs({ said, place, kindOf }: Pick<Props, 'said' | 'place' | 'kindOf'>) {
  if (said.between.length === 0) return null
  const rows = said.between.map((b) => ({ ...b, taxon: kindOf.get(b.botanical) }))
  return (
    <>
      <h2>Bulbs between</h2>
      <table className="rework-table" aria-label="Bulbs between the rest">
        <tbody>
          {rows.map(({ id, taxon, botanical, count }) => (
            <tr key={id}>
              <td>
                {count} {taxon?.common ?? botanical}
              </td>
              <td>
                in {counted(pocketsFor(count), 'pocket')}
                {taxon && `, ${setWords(taxon, place)}`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}

/** A depth in centimetres, kept in metres. */
const Depth = ({ label, value, onSay }: { label: string; value: number; onSay: (m: number) => void }) => (
  <Figure
    label={label}
    value={Math.round(100 * value)}
    min={0}
    max={50}
    unit="cm"
    onSay={(v) => onSay(v! / 100)}
  />
)

/** What is bought, by supplier, in the packs that it is sold in. */
export function Shopping({ totals: { shopping } }: { totals: SchemeTotals }) {
  if (shopping.suppliers.length === 0 && shopping.unpriced.length === 0)
    return <p className="soft">Nothing is to be bought.</p>
  return (
    <table className="rework-table" aria-label="Shopping list">
      {shopping.suppliers.map((s) => (
        <tbody key={s.supplier}>
          <tr>
            <th colSpan={2}>{s.supplier}</th>
            <th className="figure">{moneyWords(s.price)}</th>
          </tr>
          {s.lines.map((l) => (
            <tr key={l.item}>
              <td>{wantedWords(l)}</td>
              <td>{packsWords(l.cover)}</td>
              <td className="figure">{moneyWords(l.cover.price)}</td>
            </tr>
          ))}
        </tbody>
      ))}
      {shopping.unpriced.length > 0 && (
        <tbody>
          <tr>
            <th colSpan={3}>Nobody has a price for</th>
          </tr>
          {shopping.unpriced.map((u) => (
            <tr key={u.item}>
              <td colSpan={3}>{wantedWords(u)}</td>
            </tr>
          ))}
        </tbody>
      )}
    </table>
  )
}

const IN_ONE = { l: 'Litres in one', kg: 'Kilograms in one', m: 'Metres in one' } as const

/** Prices, kept with the day on which they were asked. */
function Prices({ items }: { items: readonly string[] }) {
  const { today } = useGardenContext()
  const { leads } = useSignedIn().person
  const { data: offers = [] } = usePrices()
  const [draft, setDraft] = useState({
    item: '',
    supplier: '',
    pack: '9 cm pot',
    holds: 1,
    price: 0,
    on: today,
  })
  const put = (change: Partial<typeof draft>) => setDraft((d) => ({ ...d, ...change }))
  const say = usePracticeWrite(priceEndpoints.say, 'The price is kept.')
  const withdraw = usePracticeWrite(priceEndpoints.withdraw, 'Taken out.')
  const item = items.includes(draft.item) ? draft.item : (items[0] ?? '')
  const own = offers.filter((o) => items.includes(o.item))
  if (!leads) return null
  const known = offers.find(
    (o) => o.item === item && o.supplier.toLowerCase() === draft.supplier.trim().toLowerCase(),
  )
  const pack = { name: draft.pack.trim() || 'each', holds: draft.holds, price: Math.round(100 * draft.price) }
  return (
    <details>
      <summary>Prices</summary>
      <ul className="rework-list" aria-label="Prices that are known">
        {own.map((o) => (
          <li key={o.id} className="rework-row">
            <span>
              {o.item} <small>{offerWords(o)}</small>
            </span>
            <Button size="small" look="text" onClick={() => withdraw.mutate({ id: o.id })}>
              Out
            </Button>
          </li>
        ))}
      </ul>
      {items.length > 0 && (
        <div className="rework-wishes">
          <span>Of</span>
          <Choose
            label="What the price is of"
            value={item}
            options={items.map((i) => ({ value: i, label: i }))}
            onChange={(i) => put({ item: i })}
          />
          <span>From</span>
          <Input
            aria-label="Supplier"
            value={draft.supplier}
            maxLength={120}
            onChange={(e) => put({ supplier: e.target.value })}
          />
          <span>Sold as</span>
          <Input
            aria-label="Sold as"
            value={draft.pack}
            maxLength={120}
            onChange={(e) => put({ pack: e.target.value })}
          />
          <span>{materialUnits[item] ? IN_ONE[materialUnits[item]] : 'How many in one'}</span>
          <Figure
            label="How many in one"
            value={draft.holds}
            min={1}
            max={5000}
            onSay={(v) => put({ holds: v! })}
          />
          <span>Price of one</span>
          <Figure
            label="Price of one"
            value={draft.price}
            min={0}
            max={1_000_000}
            step={0.5}
            onSay={(v) => put({ price: v! })}
          />
          <span>Asked on</span>
          <DayPicker
            aria-label="Asked on"
            value={dayjs(draft.on)}
            allowClear={false}
            onChange={(d) => d && put({ on: d.format('YYYY-MM-DD') })}
          />
          <span className="wide row">
            <Button
              size="small"
              disabled={draft.supplier.trim() === '' || draft.price <= 0}
              loading={say.isPending}
              onClick={() =>
                say.mutate({
                  id: crypto.randomUUID(),
                  supplier: draft.supplier.trim(),
                  item,
                  packs: [...(known?.packs.filter((p) => p.name !== pack.name) ?? []), pack],
                  pricedOn: draft.on,
                })
              }
            >
              Keep the price
            </Button>
            {known && <small>The other packs of {known.supplier} stay as they are.</small>}
          </span>
        </div>
      )}
    </details>
  )
}

const offerWords = ({ supplier, packs, pricedOn }: OfferView): string =>
  `${supplier}: ${packs.map((p) => `${p.name}${p.holds > 1 ? ` of ${p.holds}` : ''} ${moneyWords(p.price)}`).join(', ')}, ${dayMonthYear(pricedOn)}`

/** Schemes side by side. */
function Compared({ rework, allTotals }: { rework: ReworkView; allTotals: readonly SchemeTotals[] }) {
  const names = schemeNames(rework.schemes)
  const rows: [string, (i: number) => string][] = [
    ['Kinds', (i) => String(kindsOf(rework.schemes[i]!.said).length)],
    ['Plants', (i) => String(allTotals[i]!.plants)],
    ['To be bought', (i) => String(allTotals[i]!.bought)],
    ['Leaves', (i) => String(rework.schemes[i]!.said.leaving.filter((l) => l.how === 'leaves').length)],
    ['Work', (i) => minutesText(allTotals[i]!.minutes)],
    ['First year', (i) => moneyWords(allTotals[i]!.years[0]!.price)],
    ['Three years', (i) => moneyWords(allTotals[i]!.price)],
    ['Without a price', (i) => String(allTotals[i]!.shopping.unpriced.length)],
  ]
  return (
    <>
      <h2>Side by side</h2>
      <table className="rework-table" aria-label="Schemes side by side">
        <thead>
          <tr>
            <td />
            {names.map((n) => (
              <th key={n} className="figure">
                {n}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([label, of]) => (
            <tr key={label}>
              <td>{label}</td>
              {names.map((n, i) => (
                <td key={n} className="figure">
                  {of(i)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}
