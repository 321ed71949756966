import {
  containerEndpoints,
  gardenEndpoints,
  recordEndpoints,
  ruleEndpoints,
  seasonEndpoints,
  roles,
  roleWords,
} from '@border/contract'
import {
  capitalised,
  counted,
  dayMonthYear,
  followed,
  schools,
  latitudeWords,
  longitudeWords,
} from '@border/core'
import { Form, Input, Radio, Select } from 'antd'
import { useState } from 'react'
import { hrefOf } from '../api/client.ts'
import { useChangeSession, useSignedIn } from '../api/session.ts'
import { useGardenWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { Segments } from '../frame/Segments.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { chooseTheme, useTheme, type ThemeName } from '../theme.ts'
import { useCalendarLink, useMembers } from './queries.ts'
import { BringCsv } from './BringCsv.tsx'
import { WeatherRecord } from './WeatherRecord.tsx'
import { Crew } from './Crew.tsx'
import { GardenItself } from './GardenItself.tsx'
import { YouPrefer } from './YouPrefer.tsx'
import './setup.css'

/** The garden's own settings: working days, climate record, school of thought, people, and how the screen looks. */
export function SetupScreen() {
  const { view, isHead } = useGardenContext()
  const theme = useTheme()
  const session = useSignedIn()
  const change = useChangeSession()
  return (
    <>
      <ScreenHead
        title="Set-up"
        lead={
          <>
            {view.garden.name}: {latitudeWords(view.garden.latitude)}, {longitudeWords(view.garden.longitude)}
            , {view.garden.timeZone}.
          </>
        }
      />
      <div className="screen-body setup">
        {!isHead && <p className="soft">Only a head gardener of this garden changes these.</p>}
        <Crew />
        <GardenItself />
        <WeatherRecord />
        <Schools />
        <CalendarLink />
        <ObservationFiles />
        <ContainerFiles />
        {isHead && <People />}
        <section>
          <h2>You</h2>
          <p>
            {session.person.name}, {roleWords[view.garden.role]} of this garden.
          </p>
          <YouPrefer />
          <Button onClick={() => change.mutate({ name: 'signOut' })}>Sign out here</Button>
        </section>
        <section>
          <h2>Look</h2>
          <Segments<ThemeName>
            label="Theme"
            value={theme}
            onChange={chooseTheme}
            options={[
              { value: 'light', label: 'Light' },
              { value: 'dark', label: 'Dark' },
            ]}
          />
        </section>
      </div>
    </>
  )
}

/** Where good gardeners differ: what this garden follows. */
function Schools() {
  const { view, isHead } = useGardenContext()
  const choose = useGardenWrite(
    ruleEndpoints.followSchool,
    { gardenId: view.garden.id },
    'Kept; the season’s jobs follow it.',
    ({ school }) => ({ choice: followed(view.schools, school) }),
  )
  return (
    <section>
      <h2>Schools of thought</h2>
      <p className="soft">
        Good gardeners differ on these. Every job says which school it follows and what the other would do.
      </p>
      <div className="schools">
        {schools.map((school) => (
          <fieldset key={school.id} disabled={!isHead}>
            <legend>{school.question}</legend>
            <Radio.Group
              disabled={!isHead}
              value={followed(view.schools, school.id)}
              onChange={(e) => choose.mutate({ school: school.id, choice: e.target.value as string })}
              className="stack"
            >
              {school.choices.map((c) => (
                <Radio key={c.id} value={c.id}>
                  {capitalised(c.does)}
                </Radio>
              ))}
            </Radio.Group>
          </fieldset>
        ))}
      </div>
    </section>
  )
}

/** A link by which a calendar program follows the jobs. */
function CalendarLink() {
  const { view, isHead } = useGardenContext()
  const { data } = useCalendarLink(view.garden.id, isHead)
  const [url, setUrl] = useState<string | null>(null)
  const change = useGardenWrite(seasonEndpoints.setCalendarLink, { gardenId: view.garden.id }, ({ on }) =>
    on ? 'The link is made; one made before stops working.' : 'Withdrawn: the link no longer works.',
  )
  if (!isHead || !data) return null
  const send = (on: boolean) =>
    change.mutate(
      { on },
      {
        onSuccess: (answer) => {
          // Asked again after its answer was lost, it tells the secret to nobody: a new link is made then.
          setUrl('path' in answer && answer.path ? `${location.origin}${answer.path}` : null)
        },
      },
    )
  return (
    <section>
      <h2>Calendar link</h2>
      <p>
        A calendar program that is given this link follows the jobs as they are planned anew. Whoever has it
        can read them; it can be withdrawn. Add <code>?alarms</code> for an alarm on the evening before.
      </p>
      {url && (
        <p>
          <Input readOnly aria-label="Calendar link" value={url} onFocus={(e) => e.target.select()} />
          <small>It is shown this once: copy it now.</small>
        </p>
      )}
      <div className="row">
        <Button loading={change.isPending} onClick={() => send(true)}>
          {data.since ? 'Make a new link' : 'Make a link'}
        </Button>
        {data.since && (
          <>
            <Button onClick={() => send(false)}>Withdraw it</Button>
            <small>In use since {dayMonthYear(data.since.slice(0, 10))}.</small>
          </>
        )}
      </div>
    </section>
  )
}

/** Looks at plantings out to a file, and in from one. */
function ObservationFiles() {
  const { view } = useGardenContext()
  const bring = useGardenWrite(
    recordEndpoints.bring,
    { gardenId: view.garden.id },
    'Read: every row is in the record, once.',
  )
  return (
    <AsFile
      title="Observations as a file"
      name="observations.csv"
      href={hrefOf(recordEndpoints.csv, { params: { gardenId: view.garden.id } })}
      bring={bring}
    >
      holds every look at every planting. The same file comes back in without doubling anything.
    </AsFile>
  )
}

/** The pots of the plan out to a file, and in from one. */
function ContainerFiles() {
  const { view } = useGardenContext()
  const bring = useGardenWrite(
    containerEndpoints.bring,
    { gardenId: view.garden.id },
    (_, { added, changed }) =>
      added + changed === 0
        ? 'Read: nothing in it is otherwise than on the plan.'
        : `Read: ${counted(added, 'pot')} new, ${counted(changed, 'pot')} changed. It is one change of the plan.`,
  )
  return (
    <AsFile
      title="Pots as a file"
      name="containers.csv"
      href={hrefOf(containerEndpoints.csv, { params: { gardenId: view.garden.id } })}
      bring={bring}
    >
      holds every pot that stands, with its sizes and where it stands. Change or add rows in a spreadsheet and
      bring it back: each is known by its name.
    </AsFile>
  )
}

/** A table that goes out as a file and comes back in; what it holds is said behind its name. */
function AsFile({
  title,
  name,
  href,
  bring,
  children,
}: {
  title: string
  name: string
  href: string
  bring: { isPending: boolean; mutate: (said: { csv: string }) => void }
  children: React.ReactNode
}) {
  const { isHead } = useGardenContext()
  return (
    <section>
      <h2>{title}</h2>
      <p>
        <a href={href} download>
          {name}
        </a>{' '}
        {children}
      </p>
      {isHead && (
        <BringCsv loading={bring.isPending} onText={(csv) => bring.mutate({ csv })}>
          {`Bring in ${name}`}
        </BringCsv>
      )}
    </section>
  )
}

function People() {
  const { view } = useGardenContext()
  const members = useMembers(view.garden.id, true)
  const [form] = Form.useForm()
  const add = useGardenWrite(
    gardenEndpoints.addMember,
    { gardenId: view.garden.id },
    ({ name }) => `${name} belongs to this garden now.`,
  )
  return (
    <section>
      <h2>People</h2>
      <Answered of={[members]}>
        {(members) => (
          <ul className="plain-list">
            {members.map((m) => (
              <li key={m.id}>
                {m.name}, {roleWords[m.role]} <small>{m.email}</small>
              </li>
            ))}
          </ul>
        )}
      </Answered>
      <Form
        name="people"
        form={form}
        layout="vertical"
        requiredMark={false}
        initialValues={{ role: 'crew' }}
        onFinish={(v) => add.mutate(v, { onSuccess: () => form.resetFields() })}
        className="people-form"
      >
        <Form.Item name="name" label="Name" rules={[{ required: true, message: 'Give a name' }]}>
          <Input maxLength={120} />
        </Form.Item>
        <Form.Item
          name="email"
          label="E-mail address"
          rules={[{ required: true, type: 'email', message: 'Give an address' }]}
        >
          <Input />
        </Form.Item>
        <Form.Item
          name="password"
          label="First password"
          rules={[{ required: true, min: 10, message: 'At least 10 characters' }]}
        >
          <Input.Password autoComplete="new-password" />
        </Form.Item>
        <Form.Item name="role" label="Role">
          <Select options={roles.map((r) => ({ value: r, label: roleWords[r] }))} />
        </Form.Item>
        <Button type="submit" loading={add.isPending}>
          Add to this garden
        </Button>
      </Form>
    </section>
  )
}
