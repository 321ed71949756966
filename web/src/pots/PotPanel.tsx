import type { ContainersView, FillView, PotView } from '@border/contract'
import {
  capitalised,
  counted,
  dayMonthYear,
  listed,
  poisonousTo,
  tenths,
  type MonthOfWater,
  type Taxon,
  type Year,
} from '@border/core'
import { max } from 'd3-array'
import { Link, useLocation } from 'react-router'
import { bringIntoView } from '../frame/bringIntoView.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate, shortDayMonth } from '../frame/words.ts'
import type { Sprites } from '../frontView/sprites.ts'
import { Feeding } from './Feeding.tsx'
import { FillForm } from './FillForm.tsx'
import { FoundAt } from './FoundAt.tsx'
import {
  assumedWords,
  everyWords,
  faultWords,
  isGrave,
  litresText,
  mixStateWords,
  mixSourceWords,
  mixWords,
  roleWords,
  rootWords,
  monthLong,
  sunWords,
  swapWords,
  vesselWords,
  weightWords,
  winteringWords,
} from './potWords.ts'
import { YearBars } from './YearBars.tsx'
import { Spots } from './Spots.tsx'
import type { FillDesign } from './useFill.tsx'
import type { RowPot } from './usePotRow.ts'
import { Verdicts } from './Verdicts.tsx'
import { KindName } from '../frame/KindName.tsx'

interface Props {
  pot: RowPot
  of: PotView
  all: ContainersView
  year: Year
  sprites: Sprites
  row: readonly RowPot[]
  /** Being filled: with what to begin with, where another is to be alike. */
  filling: { design?: FillDesign } | undefined
  onFilling: (is: boolean) => void
  onNext: (potId: string, design: FillDesign) => void
}

/** What there is to know of a container, and the way to fill it anew. */
export function PotPanel({ pot, of, all, row, year, sprites, filling, onFilling, onNext }: Props) {
  const { isHead } = useGardenContext()
  const fill = () => {
    bringIntoView('pot-panel')
    onFilling(true)
  }
  return (
    <section id="pot-panel" className="pot-panel" aria-label={pot.name}>
      <div className="spread">
        <div>
          <h2>{pot.name}</h2>
          <p>
            {vesselWords(pot.vessel)} Filled to two fingers below the rim it takes {litresText(of.mixLitres)}{' '}
            of mix. <span className="soft">{assumedWords(of.assumed)}</span>
          </p>
        </div>
        {isHead && !filling && (
          <Button look="primary" onClick={fill}>
            {pot.plants.length > 0 ? 'Fill it anew' : 'Fill it'}
          </Button>
        )}
      </div>
      <Faults of={of} />
      {filling ? (
        <FillForm
          {...{ pot, of, year, sprites, row, all, onNext }}
          coldestC={all.coldestC}
          design={filling.design}
          onClose={() => onFilling(false)}
        />
      ) : (
        <div className="pot-facts">
          <Verdicts pot={pot} of={of} onFill={fill} />
          <Plants pot={pot} of={of} />
          <Water of={of} isSimulated={all.isSimulated} />
          <FoundAt of={of} potId={pot.id} />
          <Feeding of={of} />
          <Mix of={of} />
          <Light of={of} />
          <Spots pot={pot} />
          <Standing pot={pot} of={of} />
          <Fills fills={of.fills} />
        </div>
      )}
    </section>
  )
}

/** What cannot stay as it is comes before all else. */
function Faults({ of }: { of: PotView }) {
  const grave = of.faults.filter(isGrave)
  if (grave.length === 0) return null
  return (
    <ul className="pot-grave" role="alert">
      {grave.map((f) => (
        <li key={f}>{faultWords(f, of)}</li>
      ))}
    </ul>
  )
}

const roleText = (role: string): string =>
  role in roleWords ? roleWords[role as keyof typeof roleWords] : role

function Plants({ pot, of }: { pot: RowPot; of: PotView }) {
  const { search } = useLocation()
  const { today } = useGardenContext()
  const nameOf = (botanical: string) =>
    pot.plants.find((p) => p.taxon.botanical === botanical)?.taxon.common ?? botanical
  return (
    <section>
      <h3>What grows in it</h3>
      {pot.plants.length === 0 && <p className="soft">Nothing.</p>}
      <ul className="plain-list">
        {pot.plants.map((p) => (
          <li key={p.id}>
            {p.count}{' '}
            <Link to={{ pathname: `../plants/${p.id}`, search }}>
              <KindName of={p.taxon} />
            </Link>
            {p.role && <small className="soft"> {roleText(p.role)}</small>}
            <Poison taxon={p.taxon} />
          </li>
        ))}
      </ul>
      <ul className="plain-list pot-remarks">
        {of.remarks.map((r) => (
          <li key={r.says} className={r.isGrave ? 'late' : undefined}>
            {r.says}
          </li>
        ))}
      </ul>
      <p>{swapWords(of.swap, nameOf, today)}</p>
      {pot.plants.length > 1 && of.remarks.length === 0 && (
        <p>They go together: by light, water, vigour, winter and what the pot holds.</p>
      )}
    </section>
  )
}

/** Whom it poisons: said where it is within their reach. */
function Poison({ taxon }: { taxon: Taxon }) {
  const harmed = poisonousTo(taxon)
  return harmed.length === 0 ? null : (
    <small className="pot-walk">Poisonous to {listed([...harmed])} if eaten: out of their reach.</small>
  )
}

function Water({ of, isSimulated }: { of: PotView; isSimulated: boolean }) {
  const { today } = useGardenContext()
  const now = Number(today.slice(5, 7))
  if (!of.water)
    return (
      <section>
        <h3>Water</h3>
        <p className="soft">Without a record of weather nothing can be told of it.</p>
      </section>
    )
  const present = of.water[now - 1]!
  const hottest = of.water.reduce((a, b) => ((b.days?.p50 ?? 99) < (a.days?.p50 ?? 99) ? b : a))
  const litres = hottest.litres
  return (
    <section>
      <h3>Water</h3>
      <p>
        {capitalised(dueWords(present))}; {dueWords(hottest)}
        {hottest.days !== null && `, ${litresText(litres)} each time`}. {aheadWords(of.ahead)}
      </p>
      <YearBars
        label="Days between waterings by month"
        tone="water"
        months={of.water.map((m) => ({
          height: m.days ? Math.min(1, 1 / Math.max(1, m.days.p50)) ** 0.5 : 0,
          figure: m.days ? String(Math.max(1, Math.round(m.days.p50))) : '–',
          says: everyWords(m),
        }))}
      />
      <small className="soft">
        Days from one watering to the next, by month: of ten times five are longer, five shorter.
        {isSimulated && ' Worked out from simulated weather: feel the mix a finger deep.'}
      </small>
    </section>
  )
}

const dueWords = (m: MonthOfWater): string =>
  m.days === null
    ? `in ${monthLong(m.month)} rain is enough in most years`
    : `in ${monthLong(m.month)} it wants water ${everyWords(m)}`

function aheadWords(ahead: PotView['ahead']): string {
  if (ahead === null) return 'There is no forecast to say when it is next due.'
  if (ahead.length === 0) return 'Watered through today, it does without in the days that are forecast.'
  const [first] = ahead
  return `Watered through today, it is due again on ${shortDayMonth(first!.day)}.`
}

/** A liner that saves less than this is not worth the trouble. */
const LINER_TELLS = 0.05

function Mix({ of }: { of: PotView }) {
  const { mix } = of
  const { today } = useGardenContext()
  return (
    <section>
      <h3>{mix.isSaid ? 'Its mix' : 'A mix for it'}</h3>
      {!mix.isSaid && (
        <p className="soft">Nobody has said what it is filled with. What grows in it would suit:</p>
      )}
      <table className="pot-mix" aria-label="Mix">
        <tbody>
          {mix.bought.map((b) => (
            <tr key={b.name}>
              <th scope="row">{capitalised(b.name)}</th>
              <td>{partsOf(mix, b.name)}</td>
              <td>{litresText(b.litres)}</td>
              <td>
                {counted(b.bags, 'bag')} of {b.bagLitres} l
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <small className="soft">Parts, and what fills it whole. {mixWords(mix)}</small>
      {mix.state && <p>{mixStateWords(mix.state, today)}</p>}
      <details>
        <summary>What its air and water rest on</summary>
        <p>{mixSourceWords(mix)}</p>
      </details>
      <details>
        <summary>Dried out, crocks, a liner</summary>
        <p>
          Dried out, it takes {litresText(mix.dryLitres)}: stand it in water to a third of its height until
          the top darkens, for poured from above it runs down the side. No crocks or gravel at its foot: a
          hand of them would take {litresText(mix.gravelLitres)} from its roots, and the wet would only stand
          higher.
          {mix.linerSaves >= LINER_TELLS &&
            ` Lined with holed plastic it would lose ${Math.round(100 * mix.linerSaves)} % less water through its wall.`}
        </p>
      </details>
    </section>
  )
}

const partsOf = ({ parts }: PotView['mix'], name: string): string => {
  const n = parts.find((p) => p.name === name)?.parts ?? 0
  return counted(Math.round(10 * n) / 10, 'part')
}

/** Bars of sun are drawn to so many hours at least. */
const LONG_DAY_H = 8

function Light({ of: { light } }: { of: PotView }) {
  const most = max(light.months, (m) => m.total) ?? 0
  return (
    <section>
      <h3>Light at its rim</h3>
      <p>
        In June {sunWords(light.months[5]!)}; in December {sunWords(light.months[11]!)}; over the growing
        season {tenths(light.season.total)} h.
        {light.eaves !== undefined && ` It stands under the eaves of ${light.eaves}: little rain reaches it.`}
      </p>
      <YearBars
        label="Hours of sun by month"
        tone="sun"
        months={light.months.map((m) => ({
          height: m.total / Math.max(LONG_DAY_H, most),
          figure: String(Math.round(m.total)),
          says: sunWords(m),
        }))}
      />
      <small className="soft">
        Hours of direct sun on a clear day in the middle of each month, as things stand today.
      </small>
    </section>
  )
}

function Standing({ pot, of }: { pot: RowPot; of: PotView }) {
  const { today } = useGardenContext()
  const nameOf = (botanical: string) =>
    pot.plants.find((p) => p.taxon.botanical === botanical)?.taxon.common ?? botanical
  const rest = of.faults.filter((f) => !isGrave(f))
  return (
    <section>
      <h3>Weight and winter</h3>
      <p>{weightWords(of)}</p>
      <ul className="plain-list">
        {rest.map((f) => (
          <li key={f}>{faultWords(f, of)}</li>
        ))}
        {of.wintering.map((w) => (
          <li key={w.botanical}>{winteringWords(w, nameOf(w.botanical))}</li>
        ))}
        {of.roots.map((r) => (
          <li key={r.botanical}>{rootWords(r.fillOn, `Roots of ${nameOf(r.botanical)}`, today)}</li>
        ))}
      </ul>
      {of.tipsAtMs !== null && !of.faults.includes('tips') && (
        <small className="soft">
          Dry, it stands until gusts of about {Math.round(of.tipsAtMs)} m/s. Reckoned by its sizes and
          material; whoever lifts it judges for themselves.
        </small>
      )}
    </section>
  )
}

function Fills({ fills }: { fills: readonly FillView[] }) {
  return (
    <section>
      <h3>Fills</h3>
      {fills.length === 0 && (
        <p className="soft">None is on record: what it was filled with, when and how it ended.</p>
      )}
      <ol className="plain-list pot-fills">
        {fills.map((f) => (
          <li key={f.id}>
            <b>{f.name}</b>{' '}
            <span className="soft">
              {f.emptiedOn
                ? `${shortDate(f.filledOn)} to ${shortDate(f.emptiedOn)}`
                : `since ${dayMonthYear(f.filledOn)}`}
            </span>
            <br />
            {f.plants.length > 0
              ? listed(f.plants.map((p) => `${p.count} ${p.botanical}`))
              : 'Nothing planted on record'}
            .{' '}
            {f.endedBy && (
              <span className={f.endedBy === 'went over' ? 'soft' : 'late'}>Ended: {f.endedBy}. </span>
            )}
            {[f.endedNote, f.note].map(
              (said) =>
                said && (
                  <span key={said} className="soft" translate="no">
                    {said}{' '}
                  </span>
                ),
            )}
          </li>
        ))}
      </ol>
    </section>
  )
}
