import { hcl } from 'd3-color'
import { describe, expect, it } from 'vitest'
import { appearanceOn, bodyOf, frontView } from '../frontView/index.ts'
import type { Point } from '../geometry/index.ts'
import { library, USUAL_YEAR, type Taxon } from '../plants/index.ts'
import { seedOf } from '../random/index.ts'
import { sizeAt } from '../rework/growth.ts'
import { shadesOf } from './light.ts'
import { paintPlant } from './paintPlant.ts'
import { framing } from './paintScene.ts'
import type { Pen } from './painter.ts'

/** A pen that keeps what it was asked for. */
function recorder() {
  const strokes: { what: keyof Pen; points: Point[]; colour: string }[] = []
  const kept = (what: keyof Pen, colour: string, ...points: Point[]) =>
    void strokes.push({ what, points, colour })
  const pen: Pen = {
    leaf: (x, y, angle, length, _, c) =>
      kept('leaf', c, [x, y], [x + length * Math.cos(angle), y + length * Math.sin(angle)]),
    stem: (x0, y0, _x, _y, x1, y1, _w, c) => kept('stem', c, [x0, y0], [x1, y1]),
    blade: (x0, y0, _x, _y, x1, y1, _w, c) => kept('blade', c, [x0, y0], [x1, y1]),
    oval: (x, y, _rx, _ry, _a, c) => kept('oval', c, [x, y]),
  }
  return { pen, strokes }
}
const PX = 90
const painted = (taxon: Taxon, day: string, seed = 3) => {
  const look = appearanceOn(taxon, day, USUAL_YEAR)
  const body = bodyOf(taxon, sizeAt(taxon, 5), look)
  const { pen, strokes } = recorder()
  if (body) paintPlant(pen, { taxon, look, body, pxPerM: PX, seed, air: 0 })
  return { strokes, body, look }
}
const named = (botanical: string) => library.find((t) => t.botanical.startsWith(botanical))!

describe('the drawing of a plant', () => {
  it('is there whenever there is something to see, near its outline, and no larger a task than a thousand strokes or two', () => {
    for (const taxon of library)
      for (const day of ['2026-01-20', '2026-05-10', '2026-07-20', '2026-10-20']) {
        const { strokes, body } = painted(taxon, day)
        const where = `${taxon.botanical} on ${day}`
        if (body === undefined) {
          expect([where, strokes.length]).toEqual([where, 0])
          continue
        }
        expect([where, strokes.length > 0 && strokes.length < 4000]).toEqual([where, true])
        const [wide, high] = [body.spreadM * PX, body.heightM * PX]
        const room = 0.45 * Math.max(wide, high) + 14
        const out = strokes
          .flatMap((s) => s.points)
          .filter(([x, y]) => !(Math.abs(x) < wide / 2 + room && y > -high - room && y < 0.25 * high + 14))
        expect([where, out.slice(0, 2)]).toEqual([where, []])
      }
  })

  it('is the same for the same plant, and another for another', () => {
    const taxon = named('Helenium autumnale')
    expect(painted(taxon, '2026-08-20', 7).strokes).toEqual(painted(taxon, '2026-08-20', 7).strokes)
    expect(painted(taxon, '2026-08-20', 8).strokes).not.toEqual(painted(taxon, '2026-08-20', 7).strokes)
  })

  it.each([
    'Phlox paniculata',
    'Rudbeckia fulgida',
    'Hydrangea paniculata',
    'Digitalis purpurea',
    'Iris sibirica',
  ])('has its flowers in its colour while it blooms, and not in May’s leaf before: %s', (botanical) => {
    const taxon = named(botanical)
    const [month] = taxon.bloomFrom!.split('-')
    const inBloom = painted(taxon, `2026-${String(Number(month)).padStart(2, '0')}-28`)
    const before = painted(taxon, `2026-${String(Number(month) - 1).padStart(2, '0')}-01`)
    expect(inBloom.look.flower).toBeGreaterThan(0)
    const shades = new Set(Array.from({ length: 41 }, (_, i) => shadesOf(taxon.flowerColour!, 0)(i / 20 - 1)))
    const flowers = ({ strokes }: typeof inBloom) =>
      strokes.filter((s) => s.what === 'oval' && shades.has(s.colour)).length
    expect(flowers(inBloom)).toBeGreaterThan(5)
    expect(flowers(before)).toBe(0)
  })

  it('is bare twigs in winter where leaves fall, and green where they stay', () => {
    const bare = painted(named('Hydrangea paniculata'), '2026-01-20').strokes
    expect(bare.some((s) => s.what === 'leaf')).toBe(false)
    expect(bare.filter((s) => s.what === 'stem').length).toBeGreaterThan(30)
    expect(
      painted(named('Taxus baccata'), '2026-01-20').strokes.filter((s) => s.what === 'leaf').length,
    ).toBeGreaterThan(100)
  })
})

describe('light', () => {
  it('grows from the dark inside to the lit rim, and distance makes all of it paler', () => {
    for (const colour of ['#3e6b3a', '#b04a8a', '#e8d060']) {
      const near = shadesOf(colour, 0)
      const lights = [-1, -0.5, 0, 0.5, 1].map((l) => hcl(near(l)).l)
      expect(lights).toEqual(lights.toSorted((a, b) => a - b))
      expect(hcl(shadesOf(colour, 1)(-1)).l).toBeGreaterThan(hcl(near(-1)).l)
    }
  })
})

describe('the framing of a bed', () => {
  const outline: Point[] = [[0, 0], [12, 0], [12, 3], [0, 3]] // prettier-ignore
  const plants = Array.from({ length: 40 }, (_, i) => ({
    id: `p${i}`,
    groupId: 'g',
    taxon: named(i % 3 === 0 ? 'Miscanthus sinensis' : 'Nepeta × faassenii'),
    x: 0.3 * i,
    y: seedOf(`p${i}`) % 3,
    ageYears: 3,
  }))
  const view = frontView(
    outline,
    plants,
    { fromDeg: 180, awayM: 5, eyeM: 1.6 },
    { on: '2026-08-01', year: USUAL_YEAR, years: 3 },
    { features: [] },
  )

  it.each([
    [700, 450],
    [340, 300],
    [1600, 500],
  ])('has every plant whole, in true proportion, in %i by %i pixels', (width, height) => {
    const frame = framing(view, [], width, height)
    expect(frame.x(1) - frame.x(0)).toBeCloseTo(frame.y(0) - frame.y(1))
    expect(frame.width).toBeGreaterThanOrEqual(width)
    for (const p of view.plants) {
      expect(frame.y(p.y + p.scale * p.body.heightM)).toBeGreaterThan(0)
      expect(frame.x(p.x)).toBeGreaterThan(0)
      expect(frame.x(p.x)).toBeLessThan(frame.width)
      expect(frame.y(p.y)).toBeLessThan(height)
    }
    expect(frame.x(view.ground.leftM)).toBeGreaterThan(0)
    expect(frame.x(view.ground.rightM)).toBeLessThan(frame.width)
  })
})
