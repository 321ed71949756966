import { crewEndpoints, type CrewView } from '@border/contract'
import { dayMonthYear, minutesText } from '@border/core'
import { Form, Input, Select } from 'antd'
import type { Dayjs } from 'dayjs'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate } from '../frame/words.ts'
import { DayPicker, DaysPicker } from '../units/DayPicker.tsx'
import { QuantityInput } from '../units/QuantityInput.tsx'

const DAY = 'YYYY-MM-DD'

/** Holidays and illness. */
export function Away({ crew }: { crew: CrewView }) {
  const { view, isHead, today } = useGardenContext()
  const withdraw = useGardenWrite(
    crewEndpoints.withdrawAbsence,
    ({ id }: { id: string }) => ({ gardenId: view.garden.id, absenceId: id }),
    'Taken back; the season is planned anew.',
  )
  const nameOf = (id: string | null) =>
    id === null ? 'Everyone' : (crew.people.find((p) => p.id === id)?.name ?? 'Someone who has left')
  const ahead = crew.absences.filter((a) => a.to >= today)
  return (
    <>
      <h3>Away</h3>
      <ul className="plain-list">
        {ahead.map((a) => (
          <li key={a.id} className="spread">
            <span>
              {nameOf(a.personId)}, {a.from === a.to ? '' : `${shortDate(a.from)} to `}
              {shortDate(a.to)}
              {a.reason && `: ${a.reason}`}
            </span>
            {isHead && (
              <Button size="small" onClick={() => withdraw.mutate({ id: a.id })}>
                Take back
              </Button>
            )}
          </li>
        ))}
        {ahead.length === 0 && <li>Nobody, from today on.</li>}
      </ul>
      {isHead && <AbsenceForm crew={crew} />}
    </>
  )
}

function AbsenceForm({ crew }: { crew: CrewView }) {
  const { view } = useGardenContext()
  const [form] = Form.useForm()
  const keep = useGardenWrite(
    crewEndpoints.addAbsence,
    { gardenId: view.garden.id },
    'Kept; the season is planned anew.',
  )
  return (
    <Form
      name="absence"
      form={form}
      layout="inline"
      className="crew-line"
      initialValues={{ personId: '' }}
      onFinish={(v: { personId: string; days: [Dayjs, Dayjs]; reason?: string }) =>
        keep.mutate(
          {
            personId: v.personId || null,
            from: v.days[0].format(DAY),
            to: v.days[1].format(DAY),
            ...(v.reason && { reason: v.reason }),
          },
          { onSuccess: () => form.resetFields() },
        )
      }
    >
      <Form.Item name="personId">
        <Select
          aria-label="Who is away"
          popupMatchSelectWidth={false}
          options={[
            { value: '', label: 'Everyone' },
            ...crew.people.map((p) => ({ value: p.id, label: p.name })),
          ]}
        />
      </Form.Item>
      <Form.Item name="days" rules={[{ required: true, message: 'Which days?' }]}>
        <DaysPicker />
      </Form.Item>
      <Form.Item name="reason">
        <Input aria-label="Why" placeholder="holiday, ill…" maxLength={120} style={{ width: 150 }} />
      </Form.Item>
      <Button type="submit" loading={keep.isPending}>
        Keep it
      </Button>
    </Form>
  )
}

/** Days on which everybody works more than usual, less or not at all. */
export function OtherDays({ crew }: { crew: CrewView }) {
  const { view, isHead, today } = useGardenContext()
  const set = useGardenWrite(
    crewEndpoints.setDay,
    { gardenId: view.garden.id },
    ({ day }) => `${dayMonthYear(day)} kept; the season is planned anew.`,
    ({ day }) => ({ minutes: crew.days.find((d) => d.day === day)?.minutes ?? null }),
  )
  const ahead = crew.days.filter((d) => d.day >= today)
  return (
    <>
      <h3>Days that differ</h3>
      <ul className="plain-list">
        {ahead.map((d) => (
          <li key={d.day} className="spread">
            <span>
              {shortDate(d.day)}: {d.minutes === 0 ? 'no work' : `${minutesText(d.minutes)} each`}
            </span>
            {isHead && (
              <Button size="small" onClick={() => set.mutate({ day: d.day, minutes: null })}>
                As usual again
              </Button>
            )}
          </li>
        ))}
        {ahead.length === 0 && <li>None ahead.</li>}
      </ul>
      {isHead && (
        <Form
          name="day"
          layout="inline"
          className="crew-line"
          initialValues={{ hours: 0 }}
          onFinish={({ day, hours }: { day: Dayjs; hours: number }) =>
            set.mutate({ day: day.format(DAY), minutes: Math.round(hours * 60) })
          }
        >
          <Form.Item name="day" rules={[{ required: true, message: 'Which day?' }]}>
            <DayPicker aria-label="Day that differs" />
          </Form.Item>
          <Form.Item name="hours" rules={[{ required: true }]}>
            <QuantityInput aria-label="Hours of each on that day" min={0} max={24} step={0.5} suffix="h" />
          </Form.Item>
          <Button type="submit" loading={set.isPending}>
            Keep the day
          </Button>
        </Form>
      )}
    </>
  )
}
