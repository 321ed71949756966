import type { LightClass } from '@border/core'
import { Segments } from '../frame/Segments.tsx'
import { Choose } from '../frame/Choose.tsx'
import {
  changeColour,
  classColours,
  hoursColour,
  MOST_CHANGE,
  MOST_HOURS,
  MOST_PART_HOURS,
  partHoursColour,
} from '../plan/colours.ts'
import { useLight } from './lightContext.ts'
import { stretchWords, type Measure, type Stretch } from './look.ts'

/** What the colours of the field mean, and which part of the day they stand for. */
export function Legend() {
  const { state, shown, dispatch } = useLight()
  const { stretch, measure } = state
  const difference = shown === 'difference'
  return (
    <div className="light-legend">
      <div className="row">
        <Choose
          label="Part of the day"
          value={stretch}
          onChange={(stretch) => dispatch({ do: 'show', what: { stretch } })}
          options={Object.entries(stretchWords).map(([value, label]) => ({
            value: value as Stretch,
            label,
          }))}
        />
        {!difference && stretch === 'total' && (
          <Segments<Measure>
            label="Hours or classes"
            value={measure}
            onChange={(measure) => dispatch({ do: 'show', what: { measure } })}
            options={[
              { value: 'hours', label: 'Hours' },
              { value: 'classes', label: 'Words' },
            ]}
          />
        )}
      </div>
      {difference ? (
        <ChangeKey />
      ) : measure === 'classes' && stretch === 'total' ? (
        <ClassKey />
      ) : (
        <HoursKey part={stretch !== 'total'} />
      )}
    </div>
  )
}

const STEP = 19
const PART_STEP = 36

function HoursKey({ part }: { part: boolean }) {
  const most = part ? MOST_PART_HOURS : MOST_HOURS
  const values = Array.from({ length: most + 1 }, (_, i) => i)
  return (
    <Key
      title={`hours of direct sun on a clear day${part ? ', this part of it' : ''}`}
      values={values}
      step={part ? PART_STEP : STEP}
      colour={part ? partHoursColour : hoursColour}
      marks={(part ? values : [0, 2, 4, 6, 9, 12]).map((v) => [v, String(v)])}
      words={
        part
          ? []
          : [
              [0.4, 'shade', 'start'],
              [4, 'part', 'middle'],
              [9, 'full sun', 'middle'],
            ]
      }
    />
  )
}

function ChangeKey() {
  return (
    <Key
      title="change in hours of direct sun a day"
      values={Array.from({ length: 2 * MOST_CHANGE + 1 }, (_, i) => i - MOST_CHANGE)}
      step={STEP}
      colour={changeColour}
      marks={[
        [-MOST_CHANGE, `−${MOST_CHANGE}`],
        [-3, '−3'],
        [0, '0'],
        [3, '+3'],
        [MOST_CHANGE, `+${MOST_CHANGE}`],
      ]}
      words={[
        [-MOST_CHANGE, 'less sun', 'start'],
        [MOST_CHANGE, 'more sun', 'end'],
      ]}
    />
  )
}

interface KeyProps {
  title: string
  values: readonly number[]
  step: number
  colour: (v: number) => string
  marks: readonly (readonly [number, string])[]
  words: readonly (readonly [number, string, 'start' | 'middle' | 'end'])[]
}

function Key({ title, values, step, colour, marks, words }: KeyProps) {
  const x = (v: number) => 14 + (v - values[0]!) * step
  return (
    <svg
      width={Math.max(246, values.length * step + 22)}
      height={words.length > 0 ? 62 : 48}
      role="img"
      aria-label={`Colour key: ${title}`}
    >
      <text x={8} y={14}>
        {title}
      </text>
      {values.map((v) => (
        <rect key={v} x={x(v) - step / 2} y={20} width={step} height={10} fill={colour(v)} />
      ))}
      {marks.map(([v, text]) => (
        <text key={text} x={x(v)} y={43} textAnchor="middle">
          {text}
        </text>
      ))}
      {words.map(([v, text, anchor]) => (
        <text key={text} x={x(v)} y={57} textAnchor={anchor} className="soft-text">
          {text}
        </text>
      ))}
    </svg>
  )
}

const classWords: Record<LightClass, string> = {
  shade: 'under 2 h',
  'part shade': '2 to 4 h',
  'part sun': '4 to 6 h',
  'full sun': '6 h or more',
}

function ClassKey() {
  return (
    <svg width={360} height={44} role="img" aria-label="Colour key: the trade’s words for hours of sun">
      {Object.entries(classColours).map(([name, colour], i) => (
        <g key={name} transform={`translate(${8 + i * 88},0)`}>
          <rect y={6} width={84} height={10} fill={colour} />
          <text y={29}>{name}</text>
          <text y={42} className="soft-text">
            {classWords[name as LightClass]}
          </text>
        </g>
      ))}
    </svg>
  )
}
