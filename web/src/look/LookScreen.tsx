import { reworkEndpoints, type LookView } from '@border/contract'
import {
  addDays,
  dayMonth,
  dayMonthYear,
  EYE_M,
  isWinterAt,
  papers,
  yearOf,
  type Paper,
  type StandingPlant,
} from '@border/core'
import { useMemo, useState } from 'react'
import { useParams } from 'react-router'
import { useAnswer } from '../api/answers.ts'
import { hrefOf } from '../api/client.ts'
import { useFile } from '../api/files.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { Whole } from '../frame/Whole.tsx'
import { FrontView } from '../frontView/FrontView.tsx'
import { weekOf, WeekSlider } from '../frame/WeekSlider.tsx'
import { SideChoice, YearChoice } from '../rework/useMoment.tsx'
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
      {/* Wider than a phone, it is moved along. */}
      <div className="look-plan" tabIndex={0} role="region" aria-label="The plan">
        <img
          src={hrefOf(reworkEndpoints.lookPlan, { params })}
          alt={`The plan of ${look.place}, to scale: letters for what is planted, numbers for what stays`}
        />
      </div>
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
  const [fromDeg, setFrom] = useState(look.seenFrom[0] ?? 180)
  const [paper, setPaper] = useState<Paper>('A4')
  const pdf = useFile(reworkEndpoints.lookPdf)
  const on = addDays(`${yearOf(look.today) + years}-01-01`, 7 * week + 3)
  const known = useMemo(() => {
    const taxonOf = new Map(look.taxa.map((t) => [t.botanical, t]))
    const known = ({ botanical, ...p }: LookView['plants'][number]): StandingPlant => ({
      ...p,
      taxon: taxonOf.get(botanical)!,
    })
    return {
      plants: look.plants.map(known),
      fillers: look.fillers.map((f) => ({ years: f.years, plants: f.plants.map(known) })),
      beyond: { ...look.beyond, plants: look.beyond.plants.map(known) },
    }
  }, [look])
  const plants = useMemo(
    () => [...known.plants, ...(known.fillers.find((f) => f.years === years)?.plants ?? [])],
    [known, years],
  )
  const standpoint = useMemo(() => ({ fromDeg, awayM: look.awayM, eyeM: EYE_M }), [fromDeg, look.awayM])
  return (
    <section aria-label="From the path">
      <div className="look-tools">
        <WeekSlider week={week} on={on} onWeek={(w) => setWeek(Number(w))} />
        <YearChoice years={years} onYears={(y) => setYears(Number(y))} />
        <SideChoice sides={look.seenFrom} fromDeg={fromDeg} onSide={(d) => setFrom(Number(d))} />
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
      <div className="look-view">
        <FrontView
          {...{ plants, standpoint, on, years }}
          outline={look.outline}
          features={look.behind}
          beyond={known.beyond}
          year={look.year}
          isWinter={isWinterAt(on, look.year)}
          label={`${look.place} from the path in the week of ${dayMonth(on)}, ${years === 1 ? 'a year' : `${years} years`} after planting`}
        />
      </div>
      <p className="soft">As the kinds usually look in that week; no plant grows just as it is drawn.</p>
    </section>
  )
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
