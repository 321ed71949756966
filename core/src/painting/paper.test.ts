import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Planting } from '../garden/index.ts'
import { taxonNamed } from '../garden/test/made.ts'
import { backdropOf, EYE_M, frontView, plantsOfScheme } from '../frontView/index.ts'
import type { Point } from '../geometry/index.ts'
import { USUAL_YEAR } from '../plants/index.ts'
import { arrange, placeOutline, plantsOf, unarranged, type BedGround } from '../rework/index.ts'
import { bed, box, sited } from '../rework/test/site.ts'
import { finished } from '../search/index.ts'
import {
  framing,
  paintGround,
  paintPlan,
  paintPlants,
  papers,
  paperMm,
  planOnPaper,
  svgPainter,
  type DrawnScheme,
  type Painter,
  type PathStyle,
  type TextStyle,
} from './index.ts'

const CELL_M = 0.2
const on = '2026-09-15'
const garden = sited([bed('Long', box(0, 0, 8, 3))], undefined, CELL_M)
const stays = [
  {
    id: 'kept',
    tag: 'S-1',
    taxon: taxonNamed('Calamagrostis brachytricha'),
    livingCount: 1,
    placeId: 'Long',
    plantedOn: '2020-03-01',
    x: 7,
    y: 1.5,
    radiusM: 0.6,
    outline: null,
  } as Planting,
]
const ground: BedGround = { of: garden.places[0]!, cellM: CELL_M, viewedFrom: [180], stays }
const kinds = [
  ['a', 'Helenium autumnale', 5],
  ['b', 'Nepeta × faassenii', 7],
  ['c', 'Helenium autumnale', 3],
] as const
const drifts = kinds.map(([id, botanical, count]) => ({ id, taxon: taxonNamed(botanical), count }))
const arranged = finished(arrange(ground, unarranged(ground, drifts), 3))
const scheme: DrawnScheme = {
  ground,
  arranged,
  pockets: [{ driftId: 'bulbs', x: 1, y: 1, bulbs: 7 }],
  between: [{ id: 'bulbs', botanical: 'Galanthus nivalis', count: 7, from: 'library' }],
  drifts: kinds.map(([id, botanical, count]) => ({ id, botanical, count, from: 'library' })),
  kindOf: new Map(['Helenium autumnale', 'Galanthus nivalis'].map((n) => [n, taxonNamed(n)])),
  stones: [[4, 2.8]],
  northDeg: 30,
}

/** A painter that keeps what it was asked for. */
function kept() {
  const paths: { d: string; style: PathStyle }[] = []
  const texts: { x: number; y: number; words: string; style: TextStyle }[] = []
  const painter: Painter = {
    path: (d, style) => void paths.push({ d, style }),
    fade: () => {},
    within: (_, draw) => draw(),
    stamp: () => {},
    text: (x, y, words, style) => void texts.push({ x, y, words, style }),
  }
  return { painter, paths, texts }
}

describe('a bed on paper', () => {
  it('is whole, in true proportion, by the largest scale of a ruler that has room', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 80, noNaN: true }),
        fc.double({ min: 0.5, max: 40, noNaN: true }),
        fc.constantFrom(...papers),
        (wide, deep, paper) => {
          const outline: Point[] = [[3, -2], [3 + wide, -2], [3 + wide, deep - 2], [3, deep - 2]] // prettier-ignore
          const [width, height] = paperMm[paper]
          const at = planOnPaper(outline, width, height)
          expect(at.heightMm).toBeLessThanOrEqual(height)
          for (const [px, py] of outline) {
            expect(at.x(px)).toBeGreaterThan(0)
            expect(at.x(px)).toBeLessThan(width)
            expect(at.y(py)).toBeGreaterThan(0)
            expect(at.y(py)).toBeLessThan(at.heightMm)
          }
          // One metre of the garden, and up the plan is up the sheet.
          expect(at.x(4) - at.x(3)).toBeCloseTo(1000 / at.scale, 9)
          expect(at.y(0) - at.y(1)).toBeCloseTo(1000 / at.scale, 9)
          // Scales of rulers lie no further apart than two and a half times.
          const fits = (by: number) =>
            (by * wide * 1000) / at.scale < width - 14 && (by * deep * 1000) / at.scale < height - 30
          expect(at.scale === 10 || !fits(2.5)).toBe(true)
        },
      ),
    )
  })

  it('has every plant where it is set, and says what each drift is and what stays', () => {
    const { painter, paths, texts } = kept()
    const at = planOnPaper(placeOutline(ground.of.place), 277, 190)
    paintPlan(painter, scheme, at)
    const dots = paths.filter((p) => p.d.includes('A0.25 0.25'))
    const plants = plantsOf(ground, arranged)
    expect(plants.length).toBeGreaterThan(10)
    expect(dots.map((p) => p.d.split('A')[0])).toEqual(
      plants.map(
        (p) => `M${Math.round(100 * (at.x(p.x) - 0.25)) / 100} ${Math.round(100 * at.y(p.y)) / 100}`,
      ),
    )
    const words = texts.map((t) => t.words)
    const count = (id: string) => arranged.drifts.find((d) => d.id === id)!.count
    // Two drifts of one kind have one letter; what stays has a number.
    expect(words).toEqual(
      expect.arrayContaining([`${count('a')} A`, `${count('b')} B`, `${count('c')} A`, '1', 'N']),
    )
    expect(words).toContainEqual(`2 m, scale 1 : ${at.scale}`)
    // Its dashes tell what stays from what comes.
    expect(paths.filter((p) => p.style.dash)).toHaveLength(stays.length)
  })
})

describe('a bed from the path in a file', () => {
  const outline = placeOutline(ground.of.place)
  const standpoint = { fromDeg: 180, awayM: 4, eyeM: EYE_M }
  const august = { on: '2026-08-01', year: USUAL_YEAR, years: 3 }
  const view = frontView(outline, plantsOfScheme(scheme, on), standpoint, august, { features: [] })

  it('draws a plant once for all that look alike, and sets each where it stands', () => {
    const frame = framing(view, [], 900, 400, 1, true)
    expect(frame.width).toBe(900)
    const stamps = new Map<string, number>()
    const feet: Point[] = []
    paintPlants(
      {
        path: () => {},
        within: (_, draw) => draw(),
        stamp: ({ name, draw }, x, y) => {
          const strokes = { leaf: 0, stem: 0, blade: 0, oval: 0 }
          draw({
            leaf: () => void strokes.leaf++,
            stem: () => void strokes.stem++,
            blade: () => void strokes.blade++,
            oval: () => void strokes.oval++,
          })
          const many = Object.values(strokes).reduce((a, b) => a + b, 0)
          // Under one name always the same drawing.
          expect(stamps.get(name) ?? many).toBe(many)
          stamps.set(name, many)
          feet.push([x, y])
        },
      },
      view,
      frame,
    )
    expect(feet).toEqual(view.plants.map((p): Point => [frame.x(p.x), frame.y(p.y)]))
    expect(stamps.size).toBeLessThan(view.plants.length)
  })

  it('has a tree behind it bare in winter, of branches alone, and in leaf in summer', () => {
    const tree = {
      id: 't',
      kind: 'tree' as const,
      name: 'Crab apple',
      from: null,
      to: null,
      geometry: { type: 'Point' as const, coordinates: [4, 7] as [number, number] },
      properties: { heightM: 5, crownRadiusM: 2, clearStemM: 1, leafFrom: '04-25', leafTo: '10-25' },
    }
    const frame = framing(view, [], 900, 400, 1, true)
    const drawn = (day: string) => {
      const { painter, paths } = kept()
      paintGround(painter, view.ground, backdropOf(outline, [tree], standpoint, day), frame, false)
      return {
        leaves: paths.filter((p) => p.d.includes('A')).length,
        branches: paths.filter((p) => p.style.line).length,
      }
    }
    const [summer, winter] = [drawn('2027-07-01'), drawn('2027-01-20')]
    expect(winter.leaves).toBe(0)
    expect(winter.branches).toBeGreaterThan(30)
    expect(summer.leaves).toBeGreaterThan(500)
  })

  it('is SVG that stands by itself, with words kept from being taken for marks', () => {
    const frame = framing(view, [], 900, 400, 1, true)
    const { painter, written } = svgPainter(frame, 'Roses & <friends>')
    paintGround(painter, view.ground, backdropOf(outline, [], standpoint, on), frame, false)
    paintPlants(painter, view, frame)
    painter.text(5, 5, 'a < b', { size: 3, colour: '#000000' })
    const svg = written()
    expect(svg).toContain('<title>Roses &amp; &lt;friends&gt;</title>')
    expect(svg).toContain('>a &lt; b</text>')
    expect(svg.match(/<use /g)).toHaveLength(view.plants.length)
    const named = new Set(svg.match(/href="#(stamp\d+)"/g))
    expect(svg.match(/<g id="stamp\d+"/g)).toHaveLength(named.size)
    expect(svg).not.toMatch(/NaN|undefined|Infinity/)
  })
})
