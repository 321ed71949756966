import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { later, themed } from '../frame/later.tsx'
import { shortDate } from '../frame/words.ts'

// A calendar is fetched by who wants to turn its pages.
const ThenCalendar = later(themed(async () => (await import('./ThenCalendar.tsx')).ThenCalendar))

interface Props {
  then: string | undefined
  /** Whether it was chosen here, and can be left to the assessment again. */
  canClear: boolean
  onThen: (day: string | undefined) => void
}

/** The day that is compared with: said, and chosen from a calendar when it is pressed. */
export function ThenDay({ then, canClear, onThen }: Props) {
  const [opened, setOpened] = useState<'never' | 'is' | 'was'>('never')
  const words = then ? `Since ${shortDate(then)}` : 'Compare with…'
  if (opened === 'is')
    return <ThenCalendar then={then} canClear={canClear} onThen={onThen} onClose={() => setOpened('was')} />
  return (
    <Button
      className="light-then"
      // What was opened from here leaves the focus here.
      autoFocus={opened === 'was'}
      aria-label={then ? `${words}: compare with another day` : words}
      onClick={() => setOpened('is')}
    >
      {words}
    </Button>
  )
}
