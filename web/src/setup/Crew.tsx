import { crewEndpoints, type CrewView } from '@border/contract'
import { counted, minutesText, skills, type Skill } from '@border/core'
import { Checkbox, Form, Input, Select } from 'antd'
import { useState } from 'react'
import { useGardens } from '../api/session.ts'
import { useGardenWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useBegunWith } from '../frame/useBegunWith.ts'
import { weekdayName } from '../frame/words.ts'
import { Away, OtherDays } from './CrewDays.tsx'
import { useCrew } from './queries.ts'
import { QuantityInput } from '../units/QuantityInput.tsx'

const skillWords: Record<Skill, string> = {
  pruning: 'pruning',
  machine: 'machines',
  spraying: 'spraying, licensed where that is asked',
  arborist: 'tree work at height, qualified',
}

const WEEK = [1, 2, 3, 4, 5, 6, 0]

type Person = CrewView['people'][number]

/** Who works in this garden, what each can do and when; and in which other gardens they do. */
export function Crew() {
  const { view } = useGardenContext()
  return (
    <section className="crew">
      <h2>Crew</h2>
      <Answered of={[useCrew(view.garden.id)]}>{(crew) => <CrewOf crew={crew} />}</Answered>
    </section>
  )
}

function CrewOf({ crew }: { crew: CrewView }) {
  const { view, isHead } = useGardenContext()
  const [editing, setEditing] = useState<string | null>(null)
  const others = crew.gardens.filter((g) => g.id !== view.garden.id).map((g) => g.name)
  if (crew.others > 0) others.push(counted(crew.others, 'garden') + ' you do not belong to')
  return (
    <>
      <p className="soft">
        Jobs are put on the days these people work, by what each can do.
        {others.length > 0 && ` They also look after ${others.join(', ')}: one plan goes over all.`}
      </p>
      <ul className="plain-list">
        {crew.people.map((p) =>
          editing === p.id ? (
            <li key={p.id}>
              <PersonForm person={p} onClose={() => setEditing(null)} />
            </li>
          ) : (
            <Member key={p.id} person={p} onChange={() => setEditing(p.id)} />
          ),
        )}
        {crew.people.length === 0 && <li>Nobody yet: no job can be given a day.</li>}
      </ul>
      {isHead &&
        (editing === 'new' ? (
          <PersonForm onClose={() => setEditing(null)} />
        ) : (
          <Button onClick={() => setEditing('new')}>Add someone</Button>
        ))}
      <Away crew={crew} />
      <OtherDays crew={crew} />
      {isHead && <Sharing key={crew.id} crew={crew} />}
    </>
  )
}

function Member({ person, onChange }: { person: Person; onChange: () => void }) {
  const { view, isHead } = useGardenContext()
  const leave = useGardenWrite(
    crewEndpoints.leave,
    { gardenId: view.garden.id, personId: person.id },
    'Gone from the crew; the season is planned anew.',
    () => person,
  )
  return (
    <li className="spread">
      <span>
        <b>{person.name}</b>, {weekWords(person)}{' '}
        <small>
          {person.skills.length === 0 ? 'no special skill' : person.skills.map(shortSkill).join(', ')}
        </small>
      </span>
      {isHead && (
        <span className="row">
          <Button size="small" onClick={onChange} aria-label={`Change ${person.name}`}>
            Change
          </Button>
          <Button size="small" onClick={() => leave.mutate({})} aria-label={`${person.name} leaves the crew`}>
            Leaves
          </Button>
        </span>
      )}
    </li>
  )
}

const shortSkill = (s: Skill) => skillWords[s].split(',')[0]!

function weekWords({ minutesByWeekday }: Person): string {
  const days = WEEK.filter((d) => minutesByWeekday[d]! > 0)
  return days.length === 0
    ? 'no days of the week'
    : days.map((d) => `${weekdayName(d)} ${minutesText(minutesByWeekday[d]!)}`).join(', ')
}

function PersonForm({ person, onClose }: { person?: Person; onClose: () => void }) {
  const { view } = useGardenContext()
  const seen = useBegunWith(person)
  const save = useGardenWrite(
    crewEndpoints.savePerson,
    { gardenId: view.garden.id },
    ({ name }) => `${name} is kept; the season is planned anew.`,
    () => seen,
  )
  return (
    <Form
      name={`person-${person?.id ?? 'new'}`}
      layout="vertical"
      requiredMark={false}
      className="crew-person"
      initialValues={{
        name: person?.name ?? '',
        skills: person?.skills ?? ['pruning'],
        ...Object.fromEntries(WEEK.map((d) => [`day${d}`, (person?.minutesByWeekday[d] ?? 0) / 60])),
      }}
      onFinish={(v: { name: string; skills: Skill[] } & Record<string, number | null>) =>
        save.mutate(
          {
            ...(person && { id: person.id }),
            name: v.name,
            skills: v.skills,
            minutesByWeekday: Array.from({ length: 7 }, (_, d) => Math.round((v[`day${d}`] ?? 0) * 60)),
          },
          { onSuccess: onClose },
        )
      }
    >
      <Form.Item
        name="name"
        label="Name"
        rules={[{ required: true, whitespace: true, message: 'Give a name' }]}
      >
        <Input maxLength={120} autoFocus />
      </Form.Item>
      <Form.Item name="skills" label="Can do, beside ordinary work">
        <Checkbox.Group options={skills.map((s) => ({ value: s, label: skillWords[s] }))} />
      </Form.Item>
      <div className="week">
        {WEEK.map((d) => (
          <Form.Item key={d} name={`day${d}`} label={weekdayName(d)}>
            <QuantityInput min={0} max={24} step={0.5} suffix="h" />
          </Form.Item>
        ))}
      </div>
      <div className="row">
        <Button look="primary" type="submit" loading={save.isPending}>
          Keep
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Form>
  )
}

/** The crew's name, the way to this garden, and whose crew it is. */
function Sharing({ crew }: { crew: CrewView }) {
  const { view } = useGardenContext()
  const { data: gardens } = useGardens()
  const here = crew.gardens.find((g) => g.id === view.garden.id)
  const seen = useBegunWith({ name: crew.name, travelMinutes: here?.travelMinutes ?? 0 })
  const keep = useGardenWrite(
    crewEndpoints.name,
    { gardenId: view.garden.id },
    'Kept; the season is planned anew.',
    () => seen,
  )
  const share = useGardenWrite(
    crewEndpoints.share,
    { gardenId: view.garden.id },
    ({ withGardenId }) =>
      withGardenId ? 'One crew looks after both now.' : 'This garden has a crew of its own now.',
    () => ({ crewId: crew.id }),
  )
  const shared = new Set(crew.gardens.map((g) => g.id))
  const choices = (gardens ?? []).filter((g) => g.role === 'head' && !shared.has(g.id))
  return (
    <>
      <h3>In several gardens</h3>
      <Form
        name="share"
        layout="inline"
        className="crew-line"
        initialValues={seen}
        onFinish={(v: { name: string; travelMinutes: number }) => keep.mutate(v)}
      >
        <Form.Item name="name" label="Crew" rules={[{ required: true, whitespace: true, message: 'Needed' }]}>
          <Input maxLength={120} />
        </Form.Item>
        <Form.Item name="travelMinutes" label="On the way here and back" rules={[{ required: true }]}>
          <QuantityInput min={0} max={600} step={5} suffix="min" />
        </Form.Item>
        <Button type="submit" loading={keep.isPending}>
          Keep
        </Button>
      </Form>
      <div className="row">
        {choices.length > 0 && (
          <Select
            aria-label="Share the crew of another garden"
            placeholder="Share the crew of…"
            value={null}
            loading={share.isPending}
            popupMatchSelectWidth={false}
            options={choices.map((g) => ({ value: g.id, label: g.name }))}
            onChange={(withGardenId: string) => share.mutate({ withGardenId })}
          />
        )}
        {crew.gardens.length + crew.others > 1 && (
          <Button onClick={() => share.mutate({ withGardenId: null })}>A crew of its own</Button>
        )}
      </div>
    </>
  )
}
