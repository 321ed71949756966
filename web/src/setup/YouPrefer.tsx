import type { Preferences } from '@border/contract'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePrefer } from './queries.ts'

type Name = keyof Preferences
type Choices = { [N in Name]: { label: string; of: Readonly<Record<Preferences[N], string>> } }

const choices: Choices = {
  names: {
    label: 'Names of plants',
    of: {
      'common first': 'common, then botanical',
      'botanical first': 'botanical, then common',
      common: 'common alone',
      botanical: 'botanical alone',
    },
  },
  length: { label: 'Lengths', of: { metres: 'metres', 'feet and inches': 'feet and inches' } },
  temperature: { label: 'Temperatures', of: { Celsius: 'Celsius', Fahrenheit: 'Fahrenheit' } },
  volume: { label: 'Water and mix', of: { litres: 'litres', 'US gallons': 'US gallons' } },
  weight: { label: 'Weights', of: { kilograms: 'kilograms', pounds: 'pounds and ounces' } },
  dates: { label: 'Days', of: { 'day first': 'day, then month', 'month first': 'month, then day' } },
  weekStart: { label: 'Weeks begin', of: { Monday: 'on Monday', Sunday: 'on Sunday' } },
}

/** How things are called, measured and written for whoever is signed in, on all their devices. */
export const YouPrefer = () => (
  <>
    <div className="prefers">
      {(Object.keys(choices) as Name[]).map((name) => (
        <Prefers key={name} name={name} />
      ))}
    </div>
    <p className="soft">
      So a bed is 3.40 by 1.20 m, a can holds 9 l and a bag 25 kg, and frost is below 0 °C until 3 May 2026.
      Files stay metric. You can type any length in any unit.
    </p>
  </>
)

function Prefers<N extends Name>({ name }: { name: N }) {
  const now = useGardenContext().preferences[name]
  const prefer = usePrefer()
  const { label, of } = choices[name] as Choices[N]
  return (
    <div className="spread">
      <span>{label}</span>
      <Choose<Preferences[N]>
        label={label}
        value={now}
        options={(Object.keys(of) as Preferences[N][]).map((value) => ({ value, label: of[value] }))}
        onChange={(value) => prefer.mutate({ [name]: value })}
      />
    </div>
  )
}
