import {
  verdictEndpoints,
  type DecisionView,
  type DecisionRequest,
  type MoveTarget,
  type PlantingView,
} from '@border/contract'
import {
  type Action,
  actions,
  type Assessment,
  capitalised,
  dayMonth,
  dayMonthYear,
  plantedWords,
  decisionInForce,
  extentOf,
  isLeftAlone,
  lightRange,
  listed,
  newSince,
  quarterHours,
  signWords,
  type SpotOption,
  type Verdict,
  type Window as RemedyWindow,
  wordOn,
  counted,
} from '@border/core'
import { Input, Radio, Select } from 'antd'
import dayjs, { type Dayjs } from 'dayjs'
import { useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortMonthYear } from '../frame/words.ts'
import { useSize } from '../frame/useSize.ts'
import { RangeStrip } from '../light/RangeStrip.tsx'
import { PlanDrawing } from '../plan/PlanDrawing.tsx'
import { grow, pointsOf } from '../plan/scale.ts'
import { HandledBy } from '../rework/OfScheme.tsx'
import { KindName } from '../frame/KindName.tsx'
import { DayPicker } from '../units/DayPicker.tsx'

interface Props {
  planting: PlantingView
  assessment: Assessment
  then: string
  decisions: readonly DecisionView[]
}

const actionSentences: Record<Action, string> = {
  keep: 'Keep it where it is.',
  'give it time': 'Give it time.',
  watch: 'Watch it another season.',
  'check water': 'Look to its water.',
  'check drainage': 'See why its ground stays wet.',
  'test the soil': 'Test its soil.',
  feed: 'Feed it.',
  support: 'Support it.',
  'firm in': 'Firm it in.',
  uncover: 'Uncover its crown.',
  'clean up': 'Clean up round it.',
  protect: 'Protect it.',
  'cut out': 'Cut out what is dead or wrong.',
  'limb up': 'Limb up the tree that shades it.',
  thin: 'Thin, and give it room.',
  restrict: 'Keep it within bounds.',
  'cut back': 'Cut it back hard.',
  renew: 'Renew it from the base.',
  divide: 'Divide it.',
  'lift and replant': 'Lift it and plant it again.',
  'pot on': 'Pot it on.',
  'move the pot': 'Move the pot.',
  move: 'Move it.',
  replace: 'Replace it.',
  remove: 'Take it out.',
}

/** `move it`: what is agreed to, or chosen instead. */
const does = (action: Action): string => {
  const sentence = actionSentences[action]
  return sentence[0]!.toLowerCase() + sentence.slice(1, -1)
}

/** One planting's verdict: reasons, light, where it could go, the runner-up, and the three answers. */
export function VerdictDetail({ planting, assessment, then, decisions }: Props) {
  const { view, isHead, on } = useGardenContext()
  const { search } = useLocation()
  const { verdict } = assessment
  const place = view.features.find((f) => f.id === planting.placeId)
  const [spot, setSpot] = useState(0)
  const decided = wordOn(decisions, assessment, on)
  const refused = decisionInForce(decisions, planting.id, on)
  const since = refused && newSince(refused, assessment)
  const own = decisions.filter((d) => d.plantingId === planting.id)
  return (
    <article className="verdict-detail" id="verdict">
      <div className="verdict-say">
        <div>
          <h2 className="verdict-title">
            <KindName of={planting.taxon} />
          </h2>
          <p className="soft">
            {planting.livingCount} of {planting.plantedCount} living in {place?.name}, planted{' '}
            {plantedWords(planting)}.{' '}
            <Link to={{ pathname: `../plants/${planting.id}`, search }}>Tag {planting.tag}, its story</Link>
          </p>
        </div>
        <p className="verdict-proposal">
          <span className="word">{actionSentences[verdict.action]}</span>{' '}
          <span className="soft">
            {signed(verdict.scores[verdict.action]!)} points; {verdict.runnerUp} comes second with{' '}
            {signed(verdict.scores[verdict.runnerUp]!)}.
          </span>
        </p>
        {since && (
          <p>
            <b>Asked again.</b> It was to be left on {dayMonthYear(refused.decidedOn)}
            {refused.reason && `: ${refused.reason}`} Since then:{' '}
            {since.join(' ') || 'the reasons have grown stronger.'}
          </p>
        )}
        <Hours planting={planting} assessment={assessment} then={then} />
        {verdict.notes.map((note) => (
          <p key={note} className="verdict-note">
            {note}
          </p>
        ))}
        <Remedies verdict={verdict} />
        <Reasons verdict={verdict} />
        <p>
          <b>What would change it.</b> {verdict.wouldChange}
        </p>
        {isHead ? (
          <Answer
            planting={planting}
            assessment={assessment}
            on={on}
            spot={verdict.spots[spot]}
            decided={decided}
            latest={own[0]}
          />
        ) : (
          <p className="soft">Only a head gardener of this garden decides.</p>
        )}
        {own.length > 0 && <Decided decisions={own} />}
      </div>
      <div className="verdict-where">
        {verdict.spots.length > 0 && <Spots spots={verdict.spots} chosen={spot} onChoose={setSpot} />}
        <MovePlan planting={planting} spots={verdict.spots} chosen={spot} onChoose={setSpot} />
      </div>
    </article>
  )
}

/** What it likes, had then and has now. */
function Hours({ planting, assessment, then }: Pick<Props, 'planting' | 'assessment' | 'then'>) {
  return (
    <div>
      <RangeStrip taxon={planting.taxon} before={assessment.before} now={assessment.now} then={then} />
      <small>
        Likes {lightRange(planting.taxon)}. {quarterHours(assessment.before.total)} in {shortMonthYear(then)};{' '}
        {quarterHours(assessment.now.total)} now: {quarterHours(assessment.now.morning)} before ten,{' '}
        {quarterHours(assessment.now.midday)} to two, {quarterHours(assessment.now.afternoon)} after.
      </small>
    </div>
  )
}

/** What was decided of it before, with the jobs that came of it. */
function Decided({ decisions }: Pick<Props, 'decisions'>) {
  const { search } = useLocation()
  return (
    <section>
      <h3>Decided</h3>
      {decisions.map((d) => (
        <p key={d.id}>
          {dayMonthYear(d.decidedOn)}, {d.decidedBy}: proposed {d.proposed};{' '}
          {d.choice === 'accept'
            ? 'accepted'
            : d.choice === 'wait'
              ? `left until ${dayMonthYear(d.waitUntil!)}`
              : `chose ${d.action}`}
          {d.reason && `. ${d.reason}`}
          {d.jobCount > 0 && (
            <>
              {'. '}
              <Link to={{ pathname: '../season', search: withJobOf(search, d.plantingId) }}>
                {counted(d.jobCount, 'job')}
              </Link>
            </>
          )}
        </p>
      ))}
    </section>
  )
}

function Spots({
  spots,
  chosen,
  onChoose,
}: {
  spots: readonly SpotOption[]
  chosen: number
  onChoose: (i: number) => void
}) {
  return (
    <>
      <h3>Where it could go</h3>
      <Radio.Group value={chosen} onChange={(e) => onChoose(e.target.value as number)} className="stack">
        {spots.map((s, i) => (
          <Radio key={i} value={i}>
            {s.placeName}, {quarterHours(s.hours.total)} of sun
            <small className="verdict-spot">
              {s.fit.limiting === 'none' ? 'light and ground it likes' : s.fit.reason}
            </small>
          </Radio>
        ))}
      </Radio.Group>
    </>
  )
}

const signed = (points: number) =>
  Math.round(points) < 0 ? `−${-Math.round(points)}` : `+${Math.round(points)}`

export function withJobOf(search: string, plantingId: string): string {
  const params = new URLSearchParams(search)
  params.set('planting', plantingId)
  return `?${params}`
}

/** What its signs ask for: what is done, when, and what it costs to wait; that of the proposal whole, others in a line. */
function Remedies({ verdict: { action, remedies } }: { verdict: Verdict }) {
  const own = remedies.filter((r) => r.action === action)
  const others = remedies.filter((r) => r.action !== action)
  if (remedies.length === 0) return null
  return (
    <section className="verdict-remedies">
      {own.length > 0 && <h3>What is done</h3>}
      {own.map((r) => (
        <div key={r.id} className="verdict-remedy">
          <p>
            {r.signs.length > 0 && <b>{capitalised(listed(r.signs.map(signWords)))}. </b>}
            {r.does}.
          </p>
          {r.steps.length > 0 && (
            <ul>
              {r.steps.map((step) => (
                <li key={step}>{step}</li>
              ))}
            </ul>
          )}
          {r.window && <When window={r.window} />}
          <p className="soft">
            <b>If it waits.</b> {r.waiting}
          </p>
        </div>
      ))}
      {others.length > 0 && <h3>{own.length > 0 ? 'What else helps' : 'What would help'}</h3>}
      {others.map((r) => (
        <p key={r.id}>
          <b>{capitalised(r.action)}.</b> {r.says} {r.does}.
        </p>
      ))}
    </section>
  )
}

/** When it is done, with the reason for each date behind a click. */
function When({ window: { earliest, bestFrom, bestTo, latest, why } }: { window: RemedyWindow }) {
  return (
    <details>
      <summary>
        When: {dayMonth(earliest)} to {dayMonth(latest)}
        {(bestFrom !== earliest || bestTo !== latest) &&
          `, best from ${dayMonth(bestFrom)} to ${dayMonth(bestTo)}`}
      </summary>
      {[...new Set([why.earliest, why.bestFrom, why.bestTo, why.latest])].map((reason) => (
        <p key={reason} className="soft">
          {reason}
        </p>
      ))}
    </details>
  )
}

/** The terms that decided, each with the points it gave; those of the other actions below. */
function Reasons({ verdict: { action: proposed, scores, terms, ruledOut } }: { verdict: Verdict }) {
  const [all, setAll] = useState(false)
  const out = new Map(ruledOut.map((r) => [r.action, r.why]))
  const shown = actions
    .filter((a) => a === proposed || (all && scores[a] !== undefined && !out.has(a)))
    .sort((a, b) => Number(b === proposed) - Number(a === proposed))
  return (
    <section>
      <div className="spread">
        <h3>Why</h3>
        <Button look="link" size="small" onClick={() => setAll(!all)} aria-expanded={all}>
          {all ? 'Only the proposal' : 'Weigh them all'}
        </Button>
      </div>
      {shown.map((action) => (
        <div key={action} className="verdict-terms">
          {all && <b>{action}</b>}
          {terms
            .filter((t) => t.action === action)
            .sort((a, b) => Math.abs(b.points) - Math.abs(a.points))
            .map((t) => (
              <p key={t.says}>
                <span className="verdict-points">{signed(t.points)}</span>
                {t.says}
              </p>
            ))}
        </div>
      ))}
      {all &&
        ruledOut.map(({ action, why }) => (
          <p key={action} className="soft">
            <b>{action}</b> is not proposed. {why}
          </p>
        ))}
    </section>
  )
}

interface AnswerProps {
  planting: PlantingView
  assessment: Assessment
  on: string
  spot: SpotOption | undefined
  decided: DecisionView | undefined
  /** The latest word on it, of whatever proposal. */
  latest: DecisionView | undefined
}

type Way = 'accept' | 'otherwise' | 'wait'

/** Accept, choose otherwise with a reason, or wait until a day. */
function Answer({ planting, assessment, on, spot, decided, latest }: AnswerProps) {
  const { view, today } = useGardenContext()
  const { verdict } = assessment
  const [way, setWay] = useState<Way>('accept')
  const [action, setAction] = useState<Action>(verdict.action === 'keep' ? 'watch' : 'keep')
  const [reason, setReason] = useState('')
  const [until, setUntil] = useState(() => dayjs(today).add(6, 'month'))
  const decide = useGardenWrite(
    verdictEndpoints.decide,
    { gardenId: view.garden.id },
    (d) =>
      d.choice === 'wait'
        ? 'Left for later.'
        : `Recorded${goes(d, verdict.action) ? '; its jobs are in the season plan.' : '.'}`,
    () => [{ plantingId: planting.id, decisionId: latest?.id ?? null }],
  )
  const target: MoveTarget | undefined = spot && { placeId: spot.placeId, x: spot.x, y: spot.y }
  const base = { plantingId: planting.id, on }
  const send = () => {
    if (way === 'accept')
      decide.mutate({ ...base, choice: 'accept', ...(verdict.action === 'move' ? { target } : {}) })
    else if (way === 'otherwise')
      decide.mutate({
        ...base,
        choice: 'otherwise',
        action,
        reason,
        ...(action === 'move' ? { target } : {}),
      })
    else
      decide.mutate({
        ...base,
        choice: 'wait',
        until: until.format('YYYY-MM-DD'),
        ...(reason ? { reason } : {}),
      })
  }
  const needsReason = way === 'otherwise' && reason.trim().length < 3
  return (
    <section className="verdict-answer" aria-label="Your decision">
      <h3>{decided ? 'Decide again' : 'Your decision'}</h3>
      <HandledBy plantingId={planting.id} />
      <Radio.Group value={way} onChange={(e) => setWay(e.target.value as Way)}>
        <Radio value="accept">
          Agree: {does(verdict.action)}
          {verdict.action === 'move' && spot && ` to ${spot.placeName}`}
        </Radio>
        <Radio value="otherwise">Choose otherwise</Radio>
        <Radio value="wait">Wait</Radio>
      </Radio.Group>
      {way === 'otherwise' && <Instead verdict={verdict} {...{ action, setAction, reason, setReason }} />}
      {way === 'wait' && <Until {...{ until, setUntil, reason, setReason }} />}
      <div className="row">
        <Button look="primary" loading={decide.isPending} disabled={needsReason} onClick={send}>
          {way === 'accept'
            ? `Agree: ${does(verdict.action)}`
            : way === 'otherwise'
              ? `Instead: ${does(action)}`
              : 'Wait'}
        </Button>
        {needsReason && <small>A word on why is kept with the decision.</small>}
      </div>
    </section>
  )
}

interface Reasoned {
  reason: string
  setReason: (reason: string) => void
}

/** What is done in its place, and why. */
function Instead({
  verdict,
  action,
  setAction,
  reason,
  setReason,
}: Reasoned & { verdict: Verdict; action: Action; setAction: (action: Action) => void }) {
  return (
    <div className="row">
      <Select<Action>
        aria-label="Instead"
        value={action}
        onChange={setAction}
        options={actions
          .filter((a) => a !== verdict.action && takable(verdict, a))
          .map((a) => ({ value: a, label: a }))}
        style={{ width: 150 }}
      />
      <Input
        aria-label="Reason"
        placeholder="Because…"
        value={reason}
        maxLength={2000}
        onChange={(e) => setReason(e.target.value)}
      />
    </div>
  )
}

/** The day until which it is left, and why, if anybody asks. */
function Until({
  until,
  setUntil,
  reason,
  setReason,
}: Reasoned & { until: Dayjs; setUntil: (day: Dayjs) => void }) {
  const { today } = useGardenContext()
  return (
    <div className="row">
      <span>until</span>
      <DayPicker
        aria-label="Wait until"
        value={until}
        minDate={dayjs(today).add(1, 'day')}
        onChange={(d) => d && setUntil(d)}
        allowClear={false}
      />
      <Input
        aria-label="Reason, if any"
        placeholder="Because… (optional)"
        value={reason}
        maxLength={2000}
        onChange={(e) => setReason(e.target.value)}
      />
    </div>
  )
}

/**
 * Whether a person can choose it: what only nothing asks for is theirs to choose; what cannot be done, and work that no sign is
 * there for, is not.
 */
const takable = ({ scores, ruledOut }: Verdict, action: Action): boolean =>
  scores[action] !== undefined && ruledOut.every((r) => r.action !== action || r.isOpen)

const goes = (d: DecisionRequest, proposed: Action) =>
  d.choice !== 'wait' && !isLeftAlone(d.choice === 'accept' ? proposed : d.action)

interface MovePlanProps {
  planting: PlantingView
  spots: readonly SpotOption[]
  chosen: number
  onChoose: (i: number) => void
}

/** From here to there, on the plan. */
function MovePlan({ planting, spots, chosen, onChoose }: MovePlanProps) {
  const { view, on } = useGardenContext()
  const [ref, size] = useSize()
  const places = view.features.filter(
    (f) => f.id === planting.placeId || spots.some((s) => s.placeId === f.id),
  )
  const extent = grow(extentOf(places.flatMap(pointsOf)), 2)
  return (
    <div className="verdict-plan" ref={ref}>
      {size.width > 0 && (
        <PlanDrawing
          features={view.features}
          plantings={view.plantings}
          on={on}
          northDeg={view.garden.northDeg}
          width={size.width}
          height={size.height}
          extent={extent}
          selectedId={planting.id}
          label={`Where ${planting.taxon.botanical} stands and could go`}
          overlay={(scale) =>
            spots.map((s, i) => (
              <g key={i} onClick={() => onChoose(i)} className="verdict-target">
                {i === chosen && (
                  <line
                    x1={scale.x(planting.x)}
                    y1={scale.y(planting.y)}
                    x2={scale.x(s.x)}
                    y2={scale.y(s.y)}
                    stroke="var(--act)"
                    strokeWidth={1.8}
                    strokeDasharray="6 4"
                  />
                )}
                <circle
                  cx={scale.x(s.x)}
                  cy={scale.y(s.y)}
                  r={i === chosen ? 10 : 7}
                  fill={i === chosen ? 'var(--act)' : 'var(--sheet)'}
                  stroke="var(--act)"
                  strokeWidth={2}
                />
                <text
                  x={scale.x(s.x)}
                  y={scale.y(s.y) + 4}
                  textAnchor="middle"
                  className={i === chosen ? 'on' : ''}
                >
                  {i + 1}
                </text>
              </g>
            ))
          }
        />
      )}
    </div>
  )
}
