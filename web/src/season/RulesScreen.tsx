import { ruleEndpoints, type RuleView } from '@border/contract'
import { capitalised, counted, monthDaysWords, operations } from '@border/core'
import { Input, Radio, Select, Switch } from 'antd'
import { group } from 'd3-array'
import { useState } from 'react'
import { Link } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { SimulatedNote } from '../frame/Simulated.tsx'
import { Answered } from '../frame/Answered.tsx'
import { shortDate, shortDayMonth } from '../frame/words.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { useRules } from './queries.ts'
import { MonthDaysChoice, USUAL_MONTH_DAYS } from './MonthDaysChoice.tsx'
import { OwnRuleForm } from './OwnRuleForm.tsx'
import './season.css'
import { QuantityInput } from '../units/QuantityInput.tsx'

/** Every rule of care as a sentence, with what it now touches; switched off or adjusted for this garden. */
export function RulesScreen() {
  const { view } = useGardenContext()
  return (
    <Answered of={[useRules(view.garden.id)]} title="Rules of care">
      {(rules) => <Rules rules={rules} />}
    </Answered>
  )
}

function Rules({ rules }: { rules: readonly RuleView[] }) {
  const { isHead } = useGardenContext()
  const [adding, setAdding] = useState(false)
  const [wanted, setWanted] = useState('')
  const words = wanted.trim().toLowerCase()
  const shown = rules.filter(
    (r) =>
      words === '' ||
      `${r.sentence} ${r.does} ${r.operation}`.toLowerCase().includes(words) ||
      r.touches.some((t) => t.label.toLowerCase().includes(words)),
  )
  const byOperation = group(shown, (r) => r.operation)
  return (
    <>
      <ScreenHead
        title="Rules of care"
        lead={
          <>
            {counted(rules.filter((r) => r.isOn).length, 'rule')} in force.{' '}
            <Link to="../season">The season they make</Link>
          </>
        }
      >
        {isHead && !adding && <Button onClick={() => setAdding(true)}>Add a rule of your own</Button>}
        <Input.Search
          aria-label="Find a rule or a plant"
          placeholder="Find a rule or a plant"
          value={wanted}
          onChange={(e) => setWanted(e.target.value)}
          style={{ width: 240 }}
        />
      </ScreenHead>
      <div className="screen-body rules">
        <SimulatedNote />
        {adding && <OwnRuleForm onClose={() => setAdding(false)} />}
        {operations
          .filter((o) => byOperation.has(o))
          .map((o) => (
            <section key={o}>
              <h2>{capitalised(o)}</h2>
              {byOperation.get(o)!.map((r) => (
                <Rule key={r.id} rule={r} />
              ))}
            </section>
          ))}
        {shown.length === 0 && <p className="soft">No rule speaks of that.</p>}
      </div>
    </>
  )
}

const MOST_TOUCHED = 6

function Rule({ rule }: { rule: RuleView }) {
  const { view, isHead } = useGardenContext()
  const [opened, setOpened] = useState<'adjust' | 'edit'>()
  const params = { gardenId: view.garden.id, rule: rule.id }
  const change = useGardenWrite(ruleEndpoints.change, params, 'Kept; the season’s jobs follow it.', () => ({
    isOn: rule.isOn,
    adjusted: rule.adjusted,
  }))
  const off = !rule.isOn || rule.school?.followed === false
  const close = () => setOpened(undefined)
  return (
    <article className={`rule${off ? ' off' : ''}`}>
      <Switch
        size="small"
        aria-label={`${rule.does} (${rule.id})`}
        checked={rule.isOn}
        disabled={!isHead}
        loading={change.isPending}
        onChange={(isOn) => change.mutate({ isOn })}
      />
      <div>
        <RuleWords rule={rule} />
        <RuleNext rule={rule} />
        <p>
          <small>{touchesWords(rule)}</small>{' '}
          {isHead && (
            <RuleSteps
              rule={rule}
              onAdjust={() => setOpened(opened === 'adjust' ? undefined : 'adjust')}
              onEdit={() => setOpened('edit')}
            />
          )}
        </p>
        {isHead && rule.touches.length > 0 && <AskJob rule={rule} />}
        {opened === 'edit' && rule.own && <OwnRuleForm rule={rule.own} onClose={close} />}
        {opened === 'adjust' && (
          <Adjust
            rule={rule}
            onKeep={(adjusted) => {
              close()
              change.mutate({ adjusted })
            }}
          />
        )}
      </div>
    </article>
  )
}

/** What it says, why, and which school it is of. */
function RuleWords({ rule }: { rule: RuleView }) {
  return (
    <>
      <p>{rule.sentence}</p>
      <p className="soft">
        {rule.why} If missed: {rule.missed}
      </p>
      {rule.school && (
        <p className="soft">
          School: {rule.school.follows}. {rule.school.followed ? '' : 'This garden follows the other: '}
          {rule.school.followed ? `The other: ${rule.school.other}.` : `${rule.school.other}.`}
        </p>
      )}
      {rule.otherSchools.map((s) => (
        <p key={s} className="soft">
          {s}
        </p>
      ))}
    </>
  )
}

/** Its next window in this garden, or why there is none. */
function RuleNext({ rule: { next, none } }: { rule: RuleView }) {
  if (!next) return none && <p className="soft">No window here: {none}.</p>
  return (
    <p>
      Next here: <b>{shortDate(next.earliest)}</b> to <b>{shortDate(next.latest)}</b>, best{' '}
      {shortDayMonth(next.bestFrom)} to {shortDayMonth(next.bestTo)}
      {next.for && (
        <>
          , for <span className="taxon">{next.for}</span>
        </>
      )}
      .{next.unsure && <span className="unsure"> {next.unsure}</span>}
    </p>
  )
}

function touchesWords({ touches, yearly, adjusted }: RuleView): string {
  const more = touches.length > MOST_TOUCHED ? ` and ${touches.length - MOST_TOUCHED} more` : ''
  const named = touches.slice(0, MOST_TOUCHED).map((t) => t.label)
  return [
    touches.length === 0 ? 'Touches nothing here now.' : `Touches ${named.join(', ')}${more}.`,
    !yearly && 'Made into a job only by a decision, a sign or a person.',
    adjusted && `Adjusted: ${adjustedText(adjusted)}.`,
  ]
    .filter(Boolean)
    .join(' ')
}

/** What a head can do with it. */
function RuleSteps({ rule, onAdjust, onEdit }: { rule: RuleView; onAdjust: () => void; onEdit: () => void }) {
  const { view } = useGardenContext()
  const remove = useGardenWrite(
    ruleEndpoints.removeOwn,
    { gardenId: view.garden.id, rule: rule.id },
    'Taken away, and its open jobs with it.',
    () => rule.own ?? undefined,
  )
  return (
    <>
      <Button look="link" size="small" className="inline-link" onClick={onAdjust}>
        Adjust
      </Button>
      {rule.own && (
        <>
          {' '}
          <Button look="link" size="small" className="inline-link" onClick={onEdit}>
            Change it
          </Button>{' '}
          <Button
            look="link"
            size="small"
            className="inline-link"
            loading={remove.isPending}
            onClick={() => remove.mutate({})}
          >
            Take it away
          </Button>
        </>
      )}
    </>
  )
}

/** One job by it, at a person’s word. */
function AskJob({ rule }: { rule: RuleView }) {
  const { view } = useGardenContext()
  const ask = useGardenWrite(
    ruleEndpoints.askJob,
    { gardenId: view.garden.id, rule: rule.id },
    'It is a job now, in its next window.',
  )
  return (
    <Select
      size="small"
      aria-label={`Make it a job (${rule.id})`}
      placeholder="Make it a job for…"
      value={null}
      showSearch={{ optionFilterProp: 'label' }}
      loading={ask.isPending}
      popupMatchSelectWidth={false}
      options={rule.touches.map((t) => ({ value: t.id, label: t.label }))}
      onChange={(subjectId: string) => ask.mutate({ subjectId })}
      style={{ minWidth: 190 }}
    />
  )
}

const adjustedText = (a: NonNullable<RuleView['adjusted']>): string =>
  [
    a.shiftDays ? `${counted(Math.abs(a.shiftDays), 'day')} ${a.shiftDays < 0 ? 'sooner' : 'later'}` : '',
    a.labour ? `${Math.round(a.labour * 100)} % of the labour` : '',
    a.everyDays ? (a.everyDays === 1 ? 'every day' : `every ${a.everyDays} days`) : '',
    a.monthDays ? `on ${monthDaysWords(a.monthDays)}` : '',
    a.everySeasons ? `every ${counted(a.everySeasons, 'season')}` : '',
  ]
    .filter(Boolean)
    .join(', ')

type Adjusted = NonNullable<RuleView['adjusted']>

function Adjust({ rule, onKeep }: { rule: RuleView; onKeep: (adjusted: RuleView['adjusted']) => void }) {
  const [to, setTo] = useState<Adjusted>(rule.adjusted ?? {})
  const change = (part: Partial<Adjusted>) => setTo((now) => ({ ...now, ...part }))
  return (
    <div className="adjust">
      <label>
        Days later (sooner below 0){' '}
        <QuantityInput
          min={-60}
          max={60}
          value={to.shiftDays ?? 0}
          onChange={(v) => change({ shiftDays: v || undefined })}
          style={{ width: 76 }}
        />
      </label>
      <label>
        Labour, % of usual{' '}
        <QuantityInput
          min={10}
          max={1000}
          value={Math.round((to.labour ?? 1) * 100)}
          onChange={(v) => change({ labour: v && v !== 100 ? v / 100 : undefined })}
          style={{ width: 80 }}
        />
      </label>
      {rule.everyDays !== null && <Repeats shipped={rule.everyDays} {...to} onChange={change} />}
      <div className="row">
        <Button size="small" look="primary" onClick={() => onKeep(to)}>
          Keep
        </Button>
        <Button size="small" onClick={() => onKeep(null)}>
          As shipped
        </Button>
      </div>
    </div>
  )
}

/** How often it comes round: after so many days, or on weekdays of the month. */
function Repeats({
  shipped,
  everyDays,
  monthDays,
  onChange,
}: Pick<Adjusted, 'everyDays' | 'monthDays'> & {
  shipped: number
  onChange: (part: Partial<Adjusted>) => void
}) {
  return (
    <div className="adjust-repeats">
      <Radio.Group
        aria-label="Comes round"
        value={monthDays ? 'weekdays' : 'days'}
        options={[
          { value: 'days', label: 'Every so many days' },
          { value: 'weekdays', label: 'On weekdays of the month' },
        ]}
        onChange={({ target }) =>
          onChange({ monthDays: target.value === 'weekdays' ? USUAL_MONTH_DAYS : undefined })
        }
      />
      {monthDays ? (
        <MonthDaysChoice value={monthDays} onChange={(chosen) => onChange({ monthDays: chosen })} />
      ) : (
        <label>
          Days between{' '}
          <QuantityInput
            min={3}
            max={120}
            value={everyDays ?? shipped}
            onChange={(v) => onChange({ everyDays: v && v !== shipped ? v : undefined })}
            style={{ width: 70 }}
          />
        </label>
      )}
    </div>
  )
}
