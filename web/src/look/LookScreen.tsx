import { reworkEndpoints, type LookView } from '@border/contract'
import { addDays, dayMonth, dayMonthYear, papers, yearOf, type Paper } from '@border/core'
import { useEffect, useState } from 'react'
import { useParams } from 'react-router'
import { useAnswer } from '../api/answers.ts'
import { hrefOf } from '../api/client.ts'
import { useFile } from '../api/files.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { Whole } from '../frame/Whole.tsx'
import { RESTS_MS } from '../frame/address.ts'
import { GROWTH_YEARS, weekOf, WeekSlider } from '../rework/useMoment.tsx'
import './look.css'

/** A scheme as a client sees it who was given a link: drawn by week and year, with its plan and what is planted. */
export function LookScreen() {
  const { token = '' } = useParams()
  return (
    <Answered
      of={[useAnswer(reworkEndpoints.look, { params: { token } })]}
      around={(failed) => <Whole title="Seasoned Border">{failed}</Whole>}
      waiting="The drawings are made ready…"
    >
      {(look) => <Look token={token} look={look} />}
    </Answered>
  )
}

function Look({ token, look }: { token: string; look: LookView }) {
  const params = { token }
  return (
    <main className="look">
      <header>
        <h1>
          {look.place}: {look.scheme}
        </h1>
        <p className="soft">
          {look.garden}. You can look at it until {dayMonthYear(look.until)}.
        </p>
      </header>
      <Seen token={token} look={look} />
      <h2>The plan</h2>
      <img
        className="look-plan"
        src={hrefOf(reworkEndpoints.lookPlan, { params })}
        alt={`The plan of ${look.place}, to scale: letters for what is planted, numbers for what stays`}
      />
      <div className="look-lists">
        <Marked title="What is planted" of={look.comes} none="Nothing is planted." />
        <Marked title="What stays" of={look.stays} none="Nothing of what stands there now stays." />
      </div>
    </main>
  )
}

/** From the path, by week and year. */
function Seen({ token, look }: { token: string; look: LookView }) {
  const [week, setWeek] = useState(weekOf(look.today))
  const [years, setYears] = useState<number>(3)
  const [side, setSide] = useState(0)
  const [paper, setPaper] = useState<Paper>('A4')
  const [failed, setFailed] = useState('')
  const pdf = useFile(reworkEndpoints.lookPdf)
  const on = addDays(`${yearOf(look.today) + years}-01-01`, 7 * week + 3)
  const address = hrefOf(reworkEndpoints.lookView, { params: { token }, query: { on, years, side } })
  const { shown, isDrawn, drawn } = useRested(address)
  return (
    <section aria-label="From the path">
      <div className="look-tools">
        <WeekSlider moment={{ week, on, look: (to) => setWeek(Number(to.week)) }} />
        <Choose
          label="Year of growth"
          value={String(years)}
          options={GROWTH_YEARS.map((y) => ({ value: String(y), label: `year ${y}` }))}
          onChange={(y) => setYears(Number(y))}
        />
        {look.sides > 1 && (
          <Choose
            label="Seen from which side"
            value={String(side)}
            options={[
              { value: '0', label: 'from the first side' },
              { value: '1', label: 'from the other side' },
            ]}
            onChange={(s) => setSide(Number(s))}
          />
        )}
        <Choose
          label="Sheet"
          value={paper}
          options={papers.map((p) => ({ value: p, label: p }))}
          onChange={setPaper}
        />
        <Button
          loading={pdf.isPending}
          onClick={() => pdf.mutate({ params: { token }, query: { on, years, paper } })}
        >
          PDF to print
        </Button>
      </div>
      <img
        className={`look-view${isDrawn ? '' : ' look-waits'}`}
        src={shown}
        aria-busy={!isDrawn}
        alt={`${look.place} from the path in the week of ${dayMonth(on)}, ${years === 1 ? 'a year' : `${years} years`} after planting`}
        onLoad={() => {
          setFailed('')
          drawn(shown)
        }}
        onError={() => {
          setFailed(shown)
          drawn(shown)
        }}
      />
      <p className="soft">
        {failed === shown
          ? 'This week could not be drawn. Try another, or this one again in a moment.'
          : 'As the kinds usually look in that week; no plant grows just as it is drawn.'}
      </p>
    </section>
  )
}

/** An address once the hand that changes it rests, and whether what is there has come. */
function useRested(address: string) {
  const [shown, setShown] = useState(address)
  const [last, setLast] = useState('')
  useEffect(() => {
    const rested = setTimeout(() => setShown(address), RESTS_MS)
    return () => clearTimeout(rested)
  }, [address])
  return { shown, isDrawn: last === address, drawn: setLast }
}

function Marked({ title, of, none }: { title: string; of: LookView['comes']; none: string }) {
  return (
    <section>
      <h2>{title}</h2>
      {of.length === 0 ? (
        <p className="soft">{none}</p>
      ) : (
        <table aria-label={title}>
          <tbody>
            {of.map((k) => (
              <tr key={k.mark}>
                <td>
                  <b>{k.mark}</b>
                </td>
                <td className="figure">{k.count}</td>
                <td>
                  {k.common && `${k.common}, `}
                  <i>{k.botanical}</i>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  )
}
