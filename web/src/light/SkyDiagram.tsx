import { monthOf, type PointSky } from '@border/core'
import { arc } from 'd3-shape'
import { useMemo } from 'react'

const SIZE = 292
const R = 124
const DEG = Math.PI / 180
const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']

/** Zenith in the middle, horizon the rim, as one looks up lying with the head to the north: east is on the left. */
const spotOf = (azimuthDeg: number, elevationDeg: number): [number, number] => {
  const r = ((90 - elevationDeg) / 90) * R
  return [-r * Math.sin(azimuthDeg * DEG), -r * Math.cos(azimuthDeg * DEG)]
}

/** Months whose paths lie far enough apart to be told from one another; the chosen one is drawn as well. */
const SHOWN_MONTHS = [2, 3, 4, 6, 12]
/** What fills less of the sky than this, in steps of the diagram, gets no letter. */
const LEAST_STEPS = 12

/** The sky of a point: what stands where, and the sun's way across it month by month. */
export function SkyDiagram({ sky, month }: { sky: PointSky; month: number }) {
  const pieces = useMemo(() => blockedPieces(sky), [sky])
  const lettered = useMemo(() => lettersOf(sky), [sky])
  const paths = sky.paths.filter(
    ({ day, points }) =>
      day.slice(8) === '23' &&
      points.length > 0 &&
      (monthOf(day) === month || SHOWN_MONTHS.includes(monthOf(day))),
  )
  return (
    <figure className="sky">
      <svg
        viewBox={`${-SIZE / 2} ${-SIZE / 2} ${SIZE} ${SIZE}`}
        width="100%"
        role="img"
        aria-label="The sky from this spot, east on the left: what blocks it, and the sun’s paths"
      >
        <circle r={R} className="sky-open" />
        {pieces.map((p, i) => (
          <path key={i} d={p.d} className="sky-blocked" opacity={0.25 + 0.7 * p.kept}>
            <title>{sky.obstructions[p.blocker]?.name}</title>
          </path>
        ))}
        {[30, 60].map((e) => (
          <circle key={e} r={((90 - e) / 90) * R} className="sky-ring" />
        ))}
        {paths.map((path) => (
          <SunPath key={path.day} path={path} isChosen={monthOf(path.day) === month} />
        ))}
        {namesOf(paths, month).map((n) => (
          <text
            key={n.month}
            x={n.at[0]}
            y={n.at[1]}
            textAnchor="middle"
            className={n.month === month ? 'sky-month chosen' : 'sky-month'}
          >
            {months[n.month - 1]}
          </text>
        ))}
        {lettered.map((l) => (
          <text key={l.letter} x={l.at[0]} y={l.at[1] + 4} textAnchor="middle" className="sky-letter">
            {l.letter}
          </text>
        ))}
        {COMPASS.map(([name, azimuthDeg]) => {
          const [x, y] = spotOf(azimuthDeg, -8)
          return (
            <text key={name} x={x} y={y + 4} textAnchor="middle" className="sky-point">
              {name}
            </text>
          )
        })}
      </svg>
      <figcaption>
        {lettered.map((l) => `${l.letter} ${l.name}`).join(', ')}
        {lettered.length > 0 && '. '}Looking up from the spot, head to the north; rings at 30° and 60° high.
      </figcaption>
    </figure>
  )
}

const COMPASS = [
  ['N', 0],
  ['E', 90],
  ['S', 180],
  ['W', 270],
] as const

/** The room that the name of a month takes, in the diagram’s own measure. */
const NAME = { width: 24, height: 10 }

/** Where the paths are named, at their highest: the chosen month, and of the others those that do not lie on a name. */
function namesOf(paths: PointSky['paths'], month: number): { month: number; at: [number, number] }[] {
  const isChosen = ({ day }: PointSky['paths'][number]) => monthOf(day) === month
  return [...paths.filter(isChosen), ...paths.filter((path) => !isChosen(path))].reduce<
    ReturnType<typeof namesOf>
  >((named, path) => {
    const top = path.points.reduce((a, b) => (b.elevationDeg > a.elevationDeg ? b : a))
    const [x, y] = spotOf(top.azimuthDeg, top.elevationDeg)
    const at: [number, number] = [x, y + (isChosen(path) ? -5 : -2)]
    const isClear = named.every(
      (n) => Math.abs(n.at[0] - at[0]) >= NAME.width || Math.abs(n.at[1] - at[1]) >= NAME.height,
    )
    return isClear ? [...named, { month: monthOf(path.day), at }] : named
  }, [])
}

/** The sun’s way on a day; on the chosen one with its full hours. */
function SunPath({ path: { points }, isChosen }: { path: PointSky['paths'][number]; isChosen: boolean }) {
  const at = points.map((p) => spotOf(p.azimuthDeg, p.elevationDeg))
  const hours = points.filter((p) => Math.abs(p.solarHours * 6 - Math.round(p.solarHours) * 6) < 0.6)
  return (
    <g className={isChosen ? 'sky-path chosen' : 'sky-path'}>
      <path d={`M${at.map((p) => p.map((v) => v.toFixed(1)).join(',')).join('L')}`} />
      {isChosen &&
        hours.map((p) => {
          const [x, y] = spotOf(p.azimuthDeg, p.elevationDeg)
          return <circle key={p.solarHours} cx={x} cy={y} r={1.8} />
        })}
    </g>
  )
}

/** A letter for each thing that fills a good piece of the sky, at the middle of its largest stretch of one height. */
function lettersOf(sky: PointSky): { letter: string; name: string; at: [number, number] }[] {
  const azimuths = 360 / sky.azimuthStepDeg
  const found = sky.obstructions.map(({ name }) => ({
    name,
    steps: 0,
    longest: 0,
    at: [0, 0] as [number, number],
  }))
  sky.blocker.forEach((k) => k >= 0 && found[k]!.steps++)
  for (let e = 0; e < 90 / sky.elevationStepDeg; e++)
    for (let a = 0; a < azimuths;) {
      const k = sky.blocker[e * azimuths + a]!
      let end = a + 1
      while (end < azimuths && sky.blocker[e * azimuths + end] === k) end++
      // Higher up counts a little more: a letter on the rim is hard to see.
      const length = (end - a) * (1 + e / 60)
      if (k >= 0 && length > found[k]!.longest) {
        found[k]!.longest = length
        found[k]!.at = spotOf(((a + end) / 2) * sky.azimuthStepDeg, (e + 0.5) * sky.elevationStepDeg)
      }
      a = end
    }
  return found
    .filter((f) => f.steps >= LEAST_STEPS)
    .sort((a, b) => b.steps - a.steps)
    .map((f, i) => ({ letter: String.fromCharCode(65 + (i % 26)), name: f.name, at: f.at }))
}

interface Piece {
  d: string
  blocker: number
  /** Share of the light kept out. */
  kept: number
}

/** Runs of directions at one height with the same thing in the way, as pieces of rings. */
function blockedPieces(sky: PointSky): Piece[] {
  const azimuths = 360 / sky.azimuthStepDeg
  const elevations = 90 / sky.elevationStepDeg
  const ring = arc()
  const pieces: Piece[] = []
  const stepOf = (at: number) => `${sky.blocker[at]}|${Math.round((1 - sky.passing[at]!) * 5)}`
  for (let e = 0; e < elevations; e++) {
    for (let a = 0; a < azimuths;) {
      const at = e * azimuths + a
      let end = a + 1
      while (end < azimuths && stepOf(e * azimuths + end) === stepOf(at)) end++
      if (sky.passing[at]! < 0.95)
        pieces.push({
          blocker: sky.blocker[at]!,
          kept: 1 - sky.passing[at]!,
          d: ring({
            innerRadius: R * (1 - ((e + 1) * sky.elevationStepDeg) / 90),
            outerRadius: R * (1 - (e * sky.elevationStepDeg) / 90),
            // d3 turns clockwise from the top; the sky seen from below turns the other way.
            startAngle: -end * sky.azimuthStepDeg * DEG,
            endAngle: -a * sky.azimuthStepDeg * DEG,
          })!,
        })
      a = end
    }
  }
  return pieces
}
