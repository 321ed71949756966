import type { OutlookView } from '@border/contract'
import { weekdayOf } from '@border/core'
import { useState } from 'react'
import { Answered } from '../frame/Answered.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDayMonth, weekdayName } from '../frame/words.ts'
import { useOutlook } from './queries.ts'

type Day = OutlookView['days'][number]
type Need = keyof Day['suits']

const rows: readonly [Need, string][] = [
  ['plant', 'Move, plant'],
  ['dig', 'Dig'],
  ['cut', 'Prune, cut'],
  ['spray', 'Spray'],
  ['lay', 'Mulch'],
]
/** Shape and word, not colour alone. */
const marks = { good: '●', poor: '◐', no: '○' } as const

/** What the next ten days allow, by kind of work, each with its reason. */
export function Outlook() {
  const { view } = useGardenContext()
  return (
    <section className="outlook">
      <h2>The next ten days</h2>
      <Answered of={[useOutlook(view.garden.id)]}>
        {(outlook) =>
          outlook.available ? (
            <Days data={outlook} />
          ) : (
            <p className="soft">
              No forecast: {outlook.why} Work is planned by what is usual at this time of year until there is
              one.
            </p>
          )
        }
      </Answered>
    </section>
  )
}

function Days({ data }: { data: OutlookView }) {
  const [chosen, setChosen] = useState<{ day: string; need: Need } | null>(null)
  const day = data.days.find((d) => d.day === chosen?.day) ?? data.days[0]!
  const need = chosen?.need ?? 'plant'
  return (
    <>
      {data.isSimulated && (
        <p className="simulated">This forecast is simulated: look out of the window before you go by it.</p>
      )}
      <table>
        <thead>
          <tr>
            <td />
            {data.days.map((d) => (
              <th key={d.day} scope="col">
                <small>{weekdayName(weekdayOf(d.day)).slice(0, 2)}</small>
                <br />
                {Number(d.day.slice(8))}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([key, label]) => (
            <tr key={key}>
              <th scope="row">{label}</th>
              {data.days.map((d) => {
                const { level, says } = d.suits[key]
                const on = d === day && key === need
                return (
                  <td key={d.day}>
                    <button
                      type="button"
                      className={`outlook-mark ${level}`}
                      aria-pressed={on}
                      aria-label={`${label}, ${shortDayMonth(d.day)}: ${level}. ${says}`}
                      onClick={() => setChosen({ day: d.day, need: key })}
                    >
                      {marks[level]}
                    </button>
                  </td>
                )
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p>
        <b>
          {weekdayName(weekdayOf(day.day))} {shortDayMonth(day.day)},{' '}
          {rows.find(([k]) => k === need)![1].toLowerCase()}: {day.suits[need].level}.
        </b>{' '}
        {day.suits[need].says}{' '}
        <small>
          {degrees(day.minC)} to {degrees(day.maxC)} °C
          {day.spreadC >= 0.5 && `, give or take ${Math.round(day.spreadC)}`}; rain{' '}
          {Math.round(day.rainChance * 10)} in 10; soil {degrees(day.soilC)} °C.
        </small>
      </p>
      <small>● good ◐ poor ○ no. The further ahead, the less is known.</small>
    </>
  )
}

const degrees = (c: number) => String(Math.round(c)).replace('-', '−')
