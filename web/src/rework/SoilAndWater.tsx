import {
  counted,
  dayMonthYear,
  doseTurns,
  dripFor,
  feedings,
  listed,
  soilDose,
  soilTextures,
  tenths,
  type Place,
} from '@border/core'
import { useState } from 'react'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { minutesText } from '../frame/words.ts'
import { Figure } from './Figure.tsx'
import './rework.css'

interface Props {
  place: Place
  /** Ground that is planted, square metres. */
  areaM2: number
}

/** What moves the soil to another reaction, and the drip line that a place takes: reckoned, and kept nowhere. */
export const SoilAndWater = (props: Props) => (
  <>
    <details>
      <summary>Lime or sulphur</summary>
      <Reaction {...props} />
    </details>
    <details>
      <summary>Feed</summary>
      <Feeding {...props} />
    </details>
    <details>
      <summary>Drip line</summary>
      <DripLine {...props} />
    </details>
  </>
)

const TEXTURES = soilTextures.map((t) => ({ value: t, label: t }))
const MEANS = [
  { value: 'sulphur', label: 'sulphur' },
  { value: 'aluminium', label: 'aluminium sulphate' },
] as const

function Reaction({ place, areaM2 }: Props) {
  const { standing } = useGardenContext()
  const { soilTexture } = (standing.find((f) => f.id === place.id)?.properties ?? {}) as {
    soilTexture?: (typeof soilTextures)[number]
  }
  const [said, setSaid] = useState({
    now: place.ph ?? null,
    to: 6.5,
    texture: soilTexture ?? ('loam' as const),
    by: 'sulphur' as 'sulphur' | 'aluminium',
  })
  const put = (change: Partial<typeof said>) => setSaid((s) => ({ ...s, ...change }))
  const dose = said.now === null ? undefined : soilDose(said.now, said.to, said.texture)
  const turns = dose && doseTurns(dose, said.by === 'aluminium' ? 'aluminium sulphate' : undefined)
  return (
    <>
      <div className="rework-wishes">
        <span>By a test, pH</span>
        <Figure
          label="pH by a test"
          value={said.now}
          min={3}
          max={10}
          step={0.1}
          canBeEmpty
          onSay={(now) => put({ now })}
        />
        <span>Wanted, pH</span>
        <Figure
          label="pH that is wanted"
          value={said.to}
          min={3}
          max={10}
          step={0.1}
          onSay={(to) => put({ to: to! })}
        />
        <span>Soil</span>
        <Choose
          label="Texture of the soil"
          value={said.texture}
          options={TEXTURES}
          onChange={(texture) => put({ texture })}
        />
        {said.now !== null && said.to < said.now && (
          <>
            <span>With</span>
            <Choose label="With what" value={said.by} options={MEANS} onChange={(by) => put({ by })} />
          </>
        )}
      </div>
      <p>
        {said.now === null && 'Say what a test has shown: nothing is dosed on a guess.'}
        {said.now !== null &&
          !turns &&
          (said.to === said.now
            ? 'It is there already.'
            : 'Nothing would move it: free lime undoes sulphur as fast as it works.')}
        {turns && (
          <>
            {tenths(turns.inAllKgM2 * areaM2)} kg of {turns.with} in all, over {tenths(areaM2)} m²
            {turns.turns.length > 1 ? ` in ${counted(turns.turns.length, 'giving')}: ` : ': '}
            {turns.turns
              .map(
                (t) =>
                  `${tenths(t.kgM2 * areaM2)} kg ${t.afterMonths === 0 ? 'now' : `after ${t.afterMonths} months`}`,
              )
              .join(', ')}
            . Test the soil before each giving, and follow the label.
          </>
        )}
      </p>
    </>
  )
}

/** Growth is fed from spring until it should harden: of this year or, once that is over, of the next; by the half of the earth. */
function seasonOfFeeding(today: string, isSouthern: boolean): [from: string, until: string] {
  const [from, until] = isSouthern ? ['-09-15', '-02-15'] : ['-03-15', '-08-15']
  const year = Number(today.slice(0, 4))
  const ends = (y: number) => `${isSouthern ? y + 1 : y}${until}`
  const first = [year - 1, year, year + 1].find((y) => ends(y) > today)!
  return [`${first}${from}`, ends(first)]
}

function Feeding({ areaM2 }: Props) {
  const { view, today } = useGardenContext()
  const [said, setSaid] = useState({ grams: 70, days: 90 })
  const put = (change: Partial<typeof said>) => setSaid((s) => ({ ...s, ...change }))
  const [from, until] = seasonOfFeeding(today, view.garden.latitude < 0)
  const fed = feedings({ name: 'feed', gramsPerM2: said.grams, lifeDays: said.days }, areaM2, from, until)
  return (
    <>
      <div className="rework-wishes">
        <span>By its label, grams on a square metre</span>
        <Figure
          label="Grams on a square metre"
          value={said.grams}
          min={1}
          max={1000}
          onSay={(v) => put({ grams: v! })}
        />
        <span>It goes on feeding, days</span>
        <Figure
          label="Days that it goes on feeding"
          value={said.days}
          min={0}
          max={720}
          onSay={(v) => put({ days: v! })}
        />
      </div>
      <p>
        {tenths(fed.gramsInAll / 1000)} kg in all
        {fed.on.length > 0 &&
          `: ${tenths(fed.gramsEach / 1000)} kg on ${listed(fed.on.map((day) => dayMonthYear(day)))}`}
        . Growth is fed from {dayMonthYear(from)} and no later than {dayMonthYear(until)}: what is soft then
        is cut by frost.
      </p>
    </>
  )
}

function DripLine({ areaM2 }: Props) {
  const [said, setSaid] = useState({ lines: 0.4, emitters: 0.3, flow: 2, mm: 15, tap: 600 as number | null })
  const put = (change: Partial<typeof said>) => setSaid((s) => ({ ...s, ...change }))
  const drip = dripFor(
    areaM2,
    { lineSpacingM: said.lines, emitterSpacingM: said.emitters, emitterLitresPerHour: said.flow },
    said.mm,
    said.tap ?? undefined,
  )
  return (
    <>
      <div className="rework-wishes">
        <span>From line to line</span>
        <Figure
          label="From line to line, metres"
          value={said.lines}
          min={0.1}
          max={5}
          step={0.05}
          unit="m"
          onSay={(v) => put({ lines: v! })}
        />
        <span>From emitter to emitter</span>
        <Figure
          label="From emitter to emitter, metres"
          value={said.emitters}
          min={0.1}
          max={5}
          step={0.05}
          unit="m"
          onSay={(v) => put({ emitters: v! })}
        />
        <span>Litres an hour from each</span>
        <Figure
          label="Litres an hour from each emitter"
          value={said.flow}
          min={0.1}
          max={50}
          step={0.1}
          onSay={(v) => put({ flow: v! })}
        />
        <span>Water wanted</span>
        <Figure
          label="Water wanted, millimetres"
          value={said.mm}
          min={1}
          max={100}
          unit="mm"
          onSay={(v) => put({ mm: v! })}
        />
        <span>The tap gives, litres an hour</span>
        <Figure
          label="What the tap gives, litres an hour"
          value={said.tap}
          min={10}
          max={10_000}
          step={10}
          canBeEmpty
          onSay={(tap) => put({ tap })}
        />
      </div>
      <p>
        {Math.ceil(drip.lineM)} m of line with {drip.emitters} emitters, {Math.round(drip.litresPerHour)} l an
        hour. {said.mm} mm take {minutesText(Math.round(drip.minutes))}
        {drip.turns > 1 && ` each, in ${counted(drip.turns, 'turn')} for the tap`}.
      </p>
    </>
  )
}
