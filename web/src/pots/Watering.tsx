import type { AbsenceView, ContainersView } from '@border/contract'
import {
  addDays,
  counted,
  daysBetween,
  isIsoDate,
  listed,
  MOST_AWAY_DAYS,
  walkingOrder,
  type IsoDate,
} from '@border/core'
import { sum } from 'd3-array'
import { useId, useMemo } from 'react'
import { useRestedParams } from '../frame/address.ts'
import { Answered } from '../frame/Answered.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDayMonth } from '../frame/words.ts'
import { litresText } from './potWords.ts'
import { useAbsence } from './queries.ts'
import type { RowPot } from './usePotRow.ts'

interface Props {
  pots: readonly RowPot[]
  found: ContainersView
}

/** Who needs water when: in the days that are forecast, and while nobody is there. */
export function Watering({ pots, found }: Props) {
  return (
    <div className="screen-body pots-parts">
      <Ahead pots={pots} found={found} />
      <Away pots={pots} />
    </div>
  )
}

/** The order in which containers are walked past. */
function useWalk(pots: readonly RowPot[]): RowPot[] {
  const { standing } = useGardenContext()
  return useMemo(() => {
    const at = new Map(
      standing.flatMap((f) => {
        if (f.geometry.type !== 'Point') return []
        const [x, y] = f.geometry.coordinates
        return [[f.id, [x, y] as const]]
      }),
    )
    const order = walkingOrder(pots.map((p) => ({ id: p.id, at: at.get(p.id) ?? [0, 0] })))
    const byId = new Map(pots.map((p) => [p.id, p]))
    return order.map((id) => byId.get(id)!)
  }, [pots, standing])
}

function Ahead({ pots, found }: Props) {
  const { today } = useGardenContext()
  const isForecast = found.pots.some((p) => p.ahead !== null)
  const dueOf = new Map(found.pots.map((p) => [p.id, p.ahead ?? []]))
  const walk = useWalk(pots).filter((p) => (dueOf.get(p.id) ?? []).length > 0)
  const last = [...dueOf.values()]
    .flatMap((ahead) => ahead.map((a) => a.day))
    .sort()
    .at(-1)
  const days =
    last === undefined
      ? []
      : Array.from({ length: daysBetween(today, last) }, (_, i) => addDays(today, i + 1))
  const rest = pots.length - walk.length
  return (
    <section>
      <h2>The days ahead</h2>
      {!isForecast ? (
        <p className="soft">There is no forecast: feel the mix a finger deep.</p>
      ) : days.length === 0 ? (
        <p>Watered through today, none of them is due in the days that are forecast.</p>
      ) : (
        <>
          <p>
            Watered through today, these are due again, in the order you walk past them
            {rest > 0 && `; ${counted(rest, 'other')} ${rest === 1 ? 'does' : 'do'} without`}.
          </p>
          <div className="pots-scroll">
            <table className="pots-days" aria-label="Litres by day">
              <thead>
                <tr>
                  <th scope="col">Pot</th>
                  {days.map((d) => (
                    <th key={d} scope="col">
                      {shortDayMonth(d)}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {walk.map((p) => (
                  <tr key={p.id}>
                    <th scope="row">{p.name}</th>
                    {days.map((d) => (
                      <td key={d}>{litresOn(dueOf.get(p.id)!, d)}</td>
                    ))}
                  </tr>
                ))}
                <tr className="pots-sum">
                  <th scope="row">To carry</th>
                  {days.map((d) => {
                    const litres = sum(
                      [...dueOf.values()].flat().filter((a) => a.day === d),
                      (a) => a.litres,
                    )
                    return <td key={d}>{litres > 0 && litresText(litres)}</td>
                  })}
                </tr>
              </tbody>
            </table>
          </div>
        </>
      )}
      {found.isSimulated && (
        <p className="simulated">
          Worked out from simulated weather: feel the mix a finger deep before you water.
        </p>
      )}
    </section>
  )
}

function litresOn(ahead: readonly { day: IsoDate; litres: number }[], day: IsoDate): string | undefined {
  const due = ahead.find((a) => a.day === day)
  return due && litresText(due.litres)
}

const USUAL_AWAY_DAYS = 14

function Away({ pots }: Pick<Props, 'pots'>) {
  const { today } = useGardenContext()
  const [said, put] = useRestedParams(['from', 'to'])
  const id = useId()
  const from = said.from !== undefined && isIsoDate(said.from) ? said.from : addDays(today, 1)
  const to = said.to !== undefined && isIsoDate(said.to) ? said.to : addDays(from, USUAL_AWAY_DAYS)
  const span = daysBetween(from, to)
  return (
    <section>
      <h2>While nobody is there</h2>
      <div className="row pots-away">
        <label htmlFor={`${id}from`}>Away from</label>
        <input id={`${id}from`} type="date" value={from} onChange={(e) => put({ from: e.target.value })} />
        <label htmlFor={`${id}to`}>back on</label>
        <input id={`${id}to`} type="date" value={to} onChange={(e) => put({ to: e.target.value })} />
      </div>
      {span < 1 || span > MOST_AWAY_DAYS ? (
        <p className="late">
          The day of coming back must be one to {MOST_AWAY_DAYS} days after that of leaving.
        </p>
      ) : (
        <Planned {...{ pots, from, to }} />
      )}
    </section>
  )
}

function Planned({ pots, from, to }: { pots: readonly RowPot[]; from: IsoDate; to: IsoDate }) {
  const { view } = useGardenContext()
  return (
    <Answered
      of={[useAbsence(view.garden.id, from, to)]}
      waiting="The same days of other years are being gone through."
    >
      {(plan) => <Plan plan={plan} pots={pots} span={daysBetween(from, to)} />}
    </Answered>
  )
}

function Plan({ plan, pots, span }: { plan: AbsenceView; pots: readonly RowPot[]; span: number }) {
  const nameOf = new Map(pots.map((p) => [p.id, p.name]))
  const walk = useWalk(pots)
  if (plan.years === 0)
    return <p className="soft">There is no record of weather for these days of the year.</p>
  const thirsty = plan.pots.filter((p) => p.everyDays === null || p.everyDays < span)
  const { inShade } = plan
  const inWalk = (ids: readonly string[]) => walk.filter((p) => ids.includes(p.id)).map((p) => p.name)
  const helps =
    inShade.moved.length > 0 &&
    (inShade.everyDays > plan.everyDays ||
      inShade.tooThirsty.length < plan.tooThirsty.length ||
      inShade.litresAll < 0.95 * plan.litresAll)
  return (
    <>
      {plan.tooThirsty.length > 0 && (
        <p className="late">
          Once a day is too seldom for {listed(inWalk(plan.tooThirsty))} in weather that comes in one year of
          ten: lay drip there, or give {plan.tooThirsty.length === 1 ? 'it' : 'them'} another place. What
          follows is for the others.
        </p>
      )}
      <p>
        <b>{visitWords(plan.everyDays, plan.visits.length, span)}</b>{' '}
        {plan.visits.length > 0 && (
          <>
            {plan.everyDays > 1 && `On ${listed(plan.visits.map(shortDayMonth))}: `}
            {plan.everyDays > 1 ? 'up' : 'Up'} to {litresText(plan.litresEach)} a visit,{' '}
            {litresText(plan.litresAll)} in all.
          </>
        )}{' '}
        All are watered through on the morning of leaving.
      </p>
      {helps && (
        <p>
          Stood together in the shade, {listed(inWalk(inShade.moved))} would do with{' '}
          {betweenWords(inShade.everyDays, span)} and {litresText(inShade.litresAll)} in all
          {inShade.tooThirsty.length > 0 && `; not so ${listed(inWalk(inShade.tooThirsty))}`}.
        </p>
      )}
      {thirsty.length > 0 && (
        <div className="pots-scroll">
          <table className="pot-mix" aria-label="Each pot while nobody is there">
            <thead>
              <tr>
                <th scope="col">Pot</th>
                <td>does without for</td>
                <td>draws a day</td>
                <td>drip of 2 l an hour</td>
              </tr>
            </thead>
            <tbody>
              {thirsty.map((p) => (
                <tr key={p.id}>
                  <th scope="row">{nameOf.get(p.id)}</th>
                  <td className={p.everyDays === null ? 'late' : undefined}>
                    {p.everyDays === null ? 'less than a day' : counted(p.everyDays, 'day')}
                  </td>
                  <td>{litresText(p.litresADay)}</td>
                  <td>
                    {counted(p.drippers, 'dripper')}, {Math.max(1, Math.round(p.dripMinutes))} min a day
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <small className="soft">
        By the same days of {counted(plan.years, 'year')} on record: nothing goes short in nine of ten.
        {plan.isSimulated && ' The weather was made up: leave a day’s margin.'}
      </small>
    </>
  )
}

function visitWords(every: number, visits: number, span: number): string {
  if (visits === 0) return `Nobody needs to come in these ${counted(span, 'day')}.`
  return `Somebody comes ${every === 1 ? 'every day' : `every ${every} days`}, ${counted(visits, 'time')}.`
}

const betweenWords = (every: number, span: number): string =>
  every >= span ? 'no visit' : every === 1 ? 'a visit every day' : `a visit every ${every} days`
