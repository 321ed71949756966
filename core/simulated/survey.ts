import type { Point } from '../src/geometry/index.ts'
import { seededRandom } from '../src/random/index.ts'
import { tapeSdM, type Measured, type OnSide, type SurveyPoint } from '../src/survey/index.ts'

const apart = (a: Point, b: Point) => Math.hypot(a[0] - b[0], a[1] - b[1])

/** A survey whose truth is known: corners of a bed taped from fixed points, with the errors of a tape; for tests and figures. */
export function simulatedSurvey(
  seed: number,
  blunderM = 0,
): {
  points: SurveyPoint[]
  measured: Measured[]
  sides: OnSide[]
  truth: ReadonlyMap<string, Point>
  wrong: string | undefined
} {
  const random = seededRandom(seed)
  const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
  const fixed: [string, Point][] = [
    ['A', [0, 0]],
    ['B', [8 + 4 * random(), 0]],
    ['C', [11 + 2 * random(), 7 + 3 * random()]],
    ['D', [-1 - random(), 8 + 2 * random()]],
  ]
  const corners = Array.from({ length: 3 + Math.floor(3 * random()) }, (_, i): [string, Point] => [
    `P${i + 1}`,
    [1.5 + 7 * random(), 1.5 + 5 * random()],
  ])
  const truth = new Map([...fixed, ...corners])
  const measured: Measured[] = []
  const tape = (from: string, to: string) => {
    const true_ = apart(truth.get(from)!, truth.get(to)!)
    measured.push({
      id: `${from}-${to}`,
      kind: 'distance',
      from,
      to,
      metres: true_ + tapeSdM(true_) * normal(),
    })
  }
  for (const [p] of corners) for (const [f] of fixed) tape(f, p)
  corners.forEach(([p], i) => tape(p, corners[(i + 1) % corners.length]![0]))
  let wrong: string | undefined
  if (blunderM !== 0) {
    const i = Math.floor(random() * measured.length)
    const m = measured[i]! as Extract<Measured, { kind: 'distance' }>
    const by = random() < 0.5 && m.metres > 2 * blunderM ? -blunderM : blunderM
    measured[i] = { ...m, metres: m.metres + by }
    wrong = m.id
  }
  return {
    points: [
      ...fixed.map(([id, [x, y]]): SurveyPoint => ({ id, x, y })),
      ...corners.map(([id]): SurveyPoint => ({ id })),
    ],
    measured,
    sides: [],
    truth,
    wrong,
  }
}
