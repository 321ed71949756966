import { ruleEndpoints, type RuleView } from '@border/contract'
import { capitalised, counted, operations } from '@border/core'
import { Button, Input, InputNumber, Select, Switch } from 'antd'
import { group } from 'd3-array'
import { useState } from 'react'
import { Link } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { SimulatedNote } from '../frame/Simulated.tsx'
import { Answered } from '../frame/Answered.tsx'
import { shortDate, shortDayMonth } from '../frame/words.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { useRules } from './queries.ts'
import { OwnRuleForm } from './OwnRuleForm.tsx'
import './season.css'

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
  const [adjusting, setAdjusting] = useState(false)
  const change = useGardenWrite(
    ruleEndpoints.change,
    { gardenId: view.garden.id, rule: rule.id },
    'Kept; the season’s jobs follow it.',
  )
  const [editing, setEditing] = useState(false)
  const remove = useGardenWrite(
    ruleEndpoints.removeOwn,
    { gardenId: view.garden.id, rule: rule.id },
    'Taken away, and its open jobs with it.',
  )
  const ask = useGardenWrite(
    ruleEndpoints.askJob,
    { gardenId: view.garden.id, rule: rule.id },
    'It is a job now, in its next window.',
  )
  const off = !rule.isOn || rule.school?.followed === false
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
        {rule.next ? (
          <p>
            Next here: <b>{shortDate(rule.next.earliest)}</b> to <b>{shortDate(rule.next.latest)}</b>, best{' '}
            {shortDayMonth(rule.next.bestFrom)} to {shortDayMonth(rule.next.bestTo)}
            {rule.next.for && (
              <>
                , for <span className="taxon">{rule.next.for}</span>
              </>
            )}
            .{rule.next.unsure && <span className="unsure"> {rule.next.unsure}</span>}
          </p>
        ) : (
          rule.none && <p className="soft">No window here: {rule.none}.</p>
        )}
        <p>
          <small>
            {rule.touches.length === 0
              ? 'Touches nothing here now.'
              : `Touches ${rule.touches
                  .slice(0, MOST_TOUCHED)
                  .map((t) => t.label)
                  .join(
                    ', ',
                  )}${rule.touches.length > MOST_TOUCHED ? ` and ${rule.touches.length - MOST_TOUCHED} more` : ''}.`}
            {!rule.yearly && ' Made into a job only by a decision, a sign or a person.'}
            {rule.adjusted && ` Adjusted: ${adjustedText(rule.adjusted)}.`}
          </small>{' '}
          {isHead && (
            <Button type="link" size="small" className="inline-link" onClick={() => setAdjusting(!adjusting)}>
              Adjust
            </Button>
          )}
          {isHead && rule.own && (
            <>
              {' '}
              <Button type="link" size="small" className="inline-link" onClick={() => setEditing(true)}>
                Change it
              </Button>{' '}
              <Button
                type="link"
                size="small"
                className="inline-link"
                loading={remove.isPending}
                onClick={() => remove.mutate({})}
              >
                Take it away
              </Button>
            </>
          )}
        </p>
        {isHead && rule.touches.length > 0 && (
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
        )}
        {editing && rule.own && <OwnRuleForm rule={rule.own} onClose={() => setEditing(false)} />}
        {adjusting && (
          <Adjust
            rule={rule}
            onKeep={(adjusted) => {
              setAdjusting(false)
              change.mutate({ adjusted })
            }}
          />
        )}
      </div>
    </article>
  )
}

const adjustedText = (a: NonNullable<RuleView['adjusted']>): string =>
  [
    a.shiftDays ? `${Math.abs(a.shiftDays)} days ${a.shiftDays < 0 ? 'sooner' : 'later'}` : '',
    a.labour ? `${Math.round(a.labour * 100)} % of the labour` : '',
    a.everySeasons ? `every ${counted(a.everySeasons, 'season')}` : '',
  ]
    .filter(Boolean)
    .join(', ')

function Adjust({ rule, onKeep }: { rule: RuleView; onKeep: (adjusted: RuleView['adjusted']) => void }) {
  const [shiftDays, setShift] = useState(rule.adjusted?.shiftDays ?? 0)
  const [labour, setLabour] = useState(Math.round((rule.adjusted?.labour ?? 1) * 100))
  return (
    <div className="row">
      <label>
        Days later (sooner below 0){' '}
        <InputNumber
          min={-60}
          max={60}
          value={shiftDays}
          onChange={(v) => setShift(v ?? 0)}
          style={{ width: 76 }}
        />
      </label>
      <label>
        Labour, % of usual{' '}
        <InputNumber
          min={10}
          max={1000}
          value={labour}
          onChange={(v) => setLabour(v ?? 100)}
          style={{ width: 80 }}
        />
      </label>
      <Button
        size="small"
        type="primary"
        onClick={() =>
          onKeep({
            ...(shiftDays !== 0 && { shiftDays }),
            ...(labour !== 100 && { labour: labour / 100 }),
          })
        }
      >
        Keep
      </Button>
      <Button size="small" onClick={() => onKeep(null)}>
        As shipped
      </Button>
    </div>
  )
}
