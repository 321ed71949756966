import type { AssessmentView, GardenView, SeasonView } from '@border/contract'
import { castsShade, counted, isPlace, lightClass, quarterHours, type IsoDate } from '@border/core'
import { Link, useLocation } from 'react-router'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate } from '../frame/words.ts'
import { useSeason } from '../season/queries.ts'
import { useAssessment } from '../verdicts/queries.ts'
import './draw.css'
import type { DrawnKind } from './kinds.ts'

/** A garden with more plantings than this has begun. */
const BEGUN = 25

/** Whether a garden is still so new that it is told what comes next. */
export const isBeginning = (view: GardenView): boolean => view.plantings.length <= BEGUN

/** From nothing to three answers: one bed, what shades it, what grows there; and what would make the answers better. */
export function Beginning({ onDraw }: { onDraw: (kind: DrawnKind) => void }) {
  const { view, isHead } = useGardenContext()
  const { search } = useLocation()
  const has = {
    bed: view.features.some(isPlace),
    shade: view.features.some(castsShade),
    plants: view.plantings.length > 0,
  }
  return (
    <section aria-label="To begin with">
      <h2>To begin with</h2>
      <ol className="beginning">
        <Step done={has.bed} says="One bed, or a pot">
          {isHead && (
            <Button size="small" look={has.bed ? 'text' : 'primary'} onClick={() => onDraw('bed')}>
              Draw a bed
            </Button>
          )}
        </Step>
        <Step done={has.shade} says="What shades it: house, wall, hedge, tree">
          {isHead && (
            <>
              <Button
                size="small"
                look={has.bed && !has.shade ? 'primary' : 'text'}
                onClick={() => onDraw('building')}
              >
                A house
              </Button>
              <Button size="small" look="text" onClick={() => onDraw('tree')}>
                A tree
              </Button>
            </>
          )}
        </Step>
        <Step done={has.plants} says="What grows there">
          <Link to={{ pathname: '../plants', search }}>Name the plants</Link>
        </Step>
      </ol>
      {has.bed && has.plants && <Answers />}
    </section>
  )
}

const Step = ({ done, says, children }: { done: boolean; says: string; children: React.ReactNode }) => (
  <li>
    <span aria-hidden>{done ? '✓' : '○'}</span> {says}
    {done && <small> there</small>} <span className="row">{children}</span>
  </li>
)

/** How much sun, who stands wrong, what is due; each leads to where it is told whole. */
function Answers() {
  const { view, today, asOf } = useGardenContext()
  const { search } = useLocation()
  const assessment = useAssessment(view.garden.id, asOf)
  const season = useSeason(view.garden.id)
  return (
    <Answered of={[assessment, season]} quiet>
      {(judged, jobs) => (
        <>
          <h3>Three answers</h3>
          <dl className="three-answers">
            <dt>
              <Link to={{ pathname: '../light', search }}>How much sun</Link>
            </dt>
            {sunWords(view, judged).map((says) => (
              <dd key={says}>{says}</dd>
            ))}
            <dt>
              <Link to={{ pathname: '../verdicts', search }}>Who stands wrong</Link>
            </dt>
            {wrongWords(view, judged).map((says) => (
              <dd key={says}>{says}</dd>
            ))}
            <dt>
              <Link to={{ pathname: '../season', search }}>What is due</Link>
            </dt>
            {dueWords(jobs, today).map((says) => (
              <dd key={says}>{says}</dd>
            ))}
          </dl>
          <Better judged={judged} />
        </>
      )}
    </Answered>
  )
}

const TOLD = 4

/** Hours over the growing season where the plants of each place stand. */
export function sunWords(view: GardenView, { assessments }: Pick<AssessmentView, 'assessments'>): string[] {
  return view.features.filter(isPlace).flatMap((place) => {
    const here = new Set(view.plantings.filter((p) => p.placeId === place.id).map((p) => p.id))
    const hours = assessments.filter((a) => here.has(a.plantingId)).map((a) => a.now.total)
    if (hours.length === 0) return []
    const [least, most] = [Math.min(...hours), Math.max(...hours)]
    const range = most - least < 0.25 ? quarterHours(most) : `${quarterHours(least)} to ${quarterHours(most)}`
    return [`${place.name}: ${range} a day in the growing season, ${lightClass((least + most) / 2)}.`]
  })
}

function wrongWords(view: GardenView, { assessments }: AssessmentView): string[] {
  const outside = assessments.filter((a) => a.outside)
  if (outside.length === 0) return ['Nobody: each has the light it likes.']
  const name = (id: string) => view.plantings.find((p) => p.id === id)?.taxon.botanical ?? 'A planting'
  const said = outside.slice(0, TOLD).map((a) => {
    const by = a.fit.hoursOutside
    const how =
      by < 0
        ? `${quarterHours(-by)} too little sun`
        : by > 0
          ? `${quarterHours(by)} too much`
          : 'too hot an afternoon'
    return `${name(a.plantingId)}: ${how}; ${a.verdict.action} is proposed.`
  })
  return outside.length > TOLD ? [...said, `And ${counted(outside.length - TOLD, 'more planting')}.`] : said
}

function dueWords({ jobs }: SeasonView, today: IsoDate): string[] {
  const open = jobs
    .filter((j) => j.state === 'open' && j.window.latest >= today)
    .sort((a, b) => (a.window.earliest < b.window.earliest ? -1 : 1))
  if (open.length === 0) return ['Nothing in the coming year.']
  return open
    .slice(0, TOLD)
    .map((j) =>
      j.window.earliest <= today
        ? `${j.title}: now, until ${shortDate(j.window.latest)}.`
        : `${j.title}: from ${shortDate(j.window.earliest)}.`,
    )
}

/** What is missing for better answers, what changes most first. */
function Better({ judged }: { judged: AssessmentView }) {
  const { view } = useGardenContext()
  const { search } = useLocation()
  const unsaid = view.features.filter((f) => f.kind === 'bed' && !f.properties.moisture)
  const unknown = view.plantings.filter((p) => p.plantedKnown === 'unknown')
  const missing = [
    !view.features.some(castsShade) && <>What shades the beds: until it is drawn all sun is counted.</>,
    view.knownClimate === null && (
      <>
        Your last frost of spring and first of autumn, under{' '}
        <Link to={{ pathname: '../set-up', search }}>Set-up</Link>: every date hangs on them, and they are
        taken from towns about you.
      </>
    ),
    unsaid.length > 0 && (
      <>How moist the ground of {unsaid.map((f) => f.name).join(', ')} is: who fits goes by it.</>
    ),
    judged.assessments.length > 0 && (
      <>
        One <Link to={{ pathname: '../walk', search }}>walk</Link>: how each does says more than where it
        stands.
      </>
    ),
    unknown.length > 0 && (
      <>Since when {counted(unknown.length, 'planting')} stand: they are taken for settled.</>
    ),
  ].filter((m) => m !== false)
  if (missing.length === 0) return null
  return (
    <>
      <h3>For better ones, most first</h3>
      <ol className="plain-list">
        {missing.map((m, i) => (
          <li key={i}>{m}</li>
        ))}
      </ol>
    </>
  )
}
