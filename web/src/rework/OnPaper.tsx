import { reworkEndpoints, type SchemeView } from '@border/contract'
import { dayMonth, papers, type Paper } from '@border/core'
import { useState } from 'react'
import { useFile } from '../api/files.ts'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { SchemeLink } from './SchemeLink.tsx'
import { useMoment } from './useMoment.tsx'

interface Props {
  params: { gardenId: string; reworkId: string; schemeId: string }
  /** How many sides it is seen from. */
  sides: number
  isLaidOut: boolean
  link: SchemeView['link']
}

/** The scheme as files: all of it to be printed and signed, or a drawing by itself. */
export function OnPaper({ params, sides, isLaidOut, link }: Props) {
  const { isHead } = useGardenContext()
  const { on, years } = useMoment()
  const [paper, setPaper] = useState<Paper>('A4')
  const [prices, setPrices] = useState<'yes' | 'no'>('yes')
  const pdf = useFile(reworkEndpoints.schemePdf)
  const plan = useFile(reworkEndpoints.schemePlan)
  const seen = useFile(reworkEndpoints.schemeView)
  return (
    <section className="on-paper no-print" aria-label="On paper">
      <div className="row">
        <Choose
          label="Sheet"
          value={paper}
          options={papers.map((p) => ({ value: p, label: p }))}
          onChange={setPaper}
        />
        <Choose
          label="What it costs"
          value={prices}
          options={[
            { value: 'yes', label: 'with what is bought and what it costs' },
            { value: 'no', label: 'without prices or shopping list' },
          ]}
          onChange={setPrices}
        />
        <Button
          look="primary"
          loading={pdf.isPending}
          onClick={() => pdf.mutate({ params, query: { paper, prices, on, years } })}
        >
          PDF to print
        </Button>
        <Button
          size="small"
          loading={plan.isPending}
          onClick={() => plan.mutate({ params, query: { paper } })}
        >
          Plan as SVG
        </Button>
        {Array.from({ length: sides }, (_, side) => (
          <Button
            key={side}
            size="small"
            loading={seen.isPending}
            onClick={() => seen.mutate({ params, query: { on, years, side } })}
          >
            {side === 0 ? 'From the path as SVG' : 'From the other side as SVG'}
          </Button>
        ))}
      </div>
      <p>
        <small>
          {isLaidOut
            ? `The plan to scale with its key, the bed from the path in the week of ${dayMonth(on)}, ${years === 1 ? 'a year' : `${years} years`} on, and where each plant is set. Another week is chosen from the path.`
            : 'Nothing is laid out yet: the drawings show what stays.'}
        </small>
      </p>
      {isHead && <SchemeLink params={params} link={link} />}
    </section>
  )
}
