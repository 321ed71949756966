import { reworkEndpoints, type SchemeView } from '@border/contract'
import { addDays, dayMonthYear } from '@border/core'
import { Input } from 'antd'
import dayjs from 'dayjs'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { DayPicker } from '../units/DayPicker.tsx'

/** A link works so long where nobody says how long, and so long at most: days. */
const USUAL_DAYS = 60
const MOST_DAYS = 731

/** A link by which a client looks at a scheme. */
export function SchemeLink({
  params,
  link,
}: {
  params: { gardenId: string; reworkId: string; schemeId: string }
  link: SchemeView['link']
}) {
  const { today } = useGardenContext()
  const [until, setUntil] = useState(addDays(today, USUAL_DAYS))
  const [url, setUrl] = useState<string | null>(null)
  const change = useGardenWrite(reworkEndpoints.setSchemeLink, params, (said) =>
    said.until ? 'The link is made; one made before stops working.' : 'Withdrawn: the link no longer works.',
  )
  const send = (to: string | null) =>
    change.mutate(
      { until: to },
      {
        // Asked again after its answer was lost, it tells the secret to nobody: a new link is made then.
        onSuccess: (answer) =>
          setUrl('token' in answer && answer.token ? `${location.origin}/look/${answer.token}` : null),
      },
    )
  return (
    <section className="scheme-link" aria-label="A client’s link">
      <div className="row">
        <label>
          <small>A client may look until </small>
          <DayPicker
            size="small"
            aria-label="A client may look until"
            value={dayjs(until)}
            allowClear={false}
            minDate={dayjs(today)}
            maxDate={dayjs(addDays(today, MOST_DAYS))}
            onChange={(d) => d && setUntil(d.format('YYYY-MM-DD'))}
          />
        </label>
        <Button size="small" loading={change.isPending} onClick={() => send(until)}>
          {link ? 'Make a new link' : 'Make a link'}
        </Button>
        {link && (
          <>
            <Button size="small" onClick={() => send(null)}>
              Withdraw it
            </Button>
            <small>A link works until {dayMonthYear(link.until)}.</small>
          </>
        )}
      </div>
      {url && (
        <p>
          <Input readOnly aria-label="The client’s link" value={url} onFocus={(e) => e.target.select()} />
          <small>It is shown this once: copy it now.</small>
        </p>
      )}
      <p>
        <small>
          Whoever has it sees the plan, the bed from the path by week and year, and what is planted; no
          prices, nothing else of the garden. It follows what you change.
        </small>
      </p>
    </section>
  )
}
