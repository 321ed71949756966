import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { border } from './test/border.ts'

const folder = mkdtempSync(join(tmpdir(), 'border-rework-'))
const file = (name: string, of: unknown) => {
  const path = join(folder, name)
  writeFileSync(path, typeof of === 'string' ? of : JSON.stringify(of))
  return path
}

const box = (x0: number, y0: number, x1: number, y1: number) => ({
  type: 'Polygon',
  coordinates: [
    [
      [x0, y0],
      [x1, y0],
      [x1, y1],
      [x0, y1],
      [x0, y0],
    ],
  ],
})
const feature = (properties: object, geometry: object) => ({ type: 'Feature', properties, geometry })
file('plan.geojson', {
  type: 'FeatureCollection',
  garden: {
    version: 1,
    name: 'Test',
    latitude: 51.5,
    longitude: -0.1,
    timeZone: 'Europe/London',
    coordinates: 'local-metres',
    northDeg: 0,
  },
  features: [
    feature({ kind: 'bed', name: 'Open', moisture: 'fresh', ph: 6.5 }, box(0, 0, 6, 2)),
    feature({ kind: 'bed', name: 'North', moisture: 'moist' }, box(0, 12.5, 6, 14)),
    feature({ kind: 'building', name: 'House', heightM: 6 }, box(-4, 6, 10, 12)),
    feature({ kind: 'building', name: 'Barn', heightM: 6 }, box(-4, 14.4, 10, 20)),
  ],
})
file(
  'plantings.csv',
  'tag,place,taxon,count,planted_on,x,y\nA1,Open,Hosta sieboldiana,1,2019-04-01,1.5,1\nA2,Open,Helenium autumnale,3,2019-04-01,4.5,1\n',
)
const asked = { version: 1, plan: 'plan.geojson', plantings: 'plantings.csv', on: '2026-06-01' }

/** What the tests read of what it prints. */
interface Told {
  fit: { places: { place: string; best: object }[] }[]
  relocation: {
    cost: number
    spots: { id: string; place: string }[]
    destinations: { spotId: string; prices: { bench: number; gone: number } }[]
  }
  palette: { palettes: { price: number; items: object[] }[]; wishes: string[] }
  layout: {
    score: { total: number }
    quickHand: number
    drifts: { count: number; areaM2: number }[]
    plants: { driftId: string; x: number; y: number }[]
    offsets: { number: number; alongM: number; offM: number; x: number; y: number }[]
  }
  division: object[]
  quantities: { plants: object[]; shopping: object; layers: object[]; soil: object; drip: object }
  growth: { sizes: { heightM: number }[] }[]
}

async function reworked(of: object): Promise<Told> {
  const { status, stdout, stderr } = await border('rework', file('rework.json', of), '--json')
  if (status !== 0) throw new Error(stderr)
  return JSON.parse(stdout)
}
const refused = async (of: unknown) => {
  const { status, stderr } = await border('rework', file('bad.json', of), '--json')
  return { code: status, err: stderr }
}

describe('border rework', () => {
  it('says where kinds would do well, and what limits them elsewhere', async () => {
    const { fit } = await reworked({ ...asked, fit: ['Hosta sieboldiana', 'Helenium autumnale'] })
    expect(fit[0]!.places.map((p) => p.place)).toEqual(['North', 'Open'])
    expect(fit[0]!.places[1]!.best).toMatchObject({ limiting: 'light' })
    expect(fit[1]!.places[0]).toMatchObject({ place: 'Open', best: { score: 1, limiting: 'none' } })
  })

  it('sends the hosta behind the house, keeps to what is decided, and tells its price', async () => {
    const { relocation } = await reworked({ ...asked, relocation: { leaving: ['A1'] } })
    const [hosta] = relocation.destinations
    const spot = relocation.spots.find((s) => s.id === hosta!.spotId)
    expect(spot!.place).toBe('North')
    expect(hosta!.prices.gone).toBeGreaterThan(hosta!.prices.bench)
    const other = await reworked({ ...asked, relocation: { leaving: ['A1'], decided: { A1: 'bench' } } })
    expect(other.relocation.destinations[0]).toMatchObject({ to: 'bench' })
    expect(other.relocation.cost - relocation.cost).toBeCloseTo(hosta!.prices.bench)
  })

  it('proposes palettes that keep the wishes, the same for the same file, or names the wishes that do not go together', async () => {
    const palette = {
      place: 'Open',
      kinds: { least: 4, most: 8 },
      budget: 40_000,
      prices: { 'Nepeta × faassenii': 350 },
    }
    const first = await reworked({ ...asked, palette })
    expect(first.palette.palettes).toHaveLength(3)
    for (const { price, items } of first.palette.palettes) {
      expect(price).toBeLessThanOrEqual(40_000)
      expect(items.length).toBeGreaterThanOrEqual(4)
    }
    expect(await reworked({ ...asked, palette })).toEqual(first)
    const none = await reworked({
      ...asked,
      palette: { ...palette, harmlessTo: ['people'], locked: ['Aconitum carmichaelii'] },
    })
    expect(none.palette).toMatchObject({ ok: false, says: 'These wishes contradict each other.' })
    expect(none.palette.wishes).toContain('harmless')
  })

  it('lays a bed out with a place for every plant, inside it, better than a quick hand, and tells it from a base line', async () => {
    const drifts = [
      { taxon: 'Helenium autumnale', count: 9 },
      { taxon: 'Nepeta × faassenii', count: 9 },
      { taxon: 'Hylotelephium spectabile', count: 7 },
    ]
    const { layout } = await reworked({
      ...asked,
      layout: { place: 'Open', drifts, viewedFrom: [180], baseLine: [[0, 0], [6, 0]] }, // prettier-ignore
    })
    expect(layout.plants).toHaveLength(25)
    expect(layout.score.total).toBeLessThanOrEqual(layout.quickHand)
    for (const { x, y } of layout.plants) {
      expect(x > 0 && x < 6).toBe(true)
      expect(y > 0 && y < 2).toBe(true)
    }
    // Nothing low stands straight behind the tall ones, seen from below.
    const [tall, low] = ['1', '2'].map((id) => layout.plants.filter((p) => p.driftId === id))
    const hidden = low!.filter((l) => tall!.some((t) => Math.abs(t.x - l.x) < 0.15 && t.y < l.y))
    expect(hidden.length).toBeLessThanOrEqual(1)
    expect(layout.offsets.map((o) => o.number)).toEqual(layout.plants.map((_, i) => i + 1))
    for (const o of layout.offsets)
      expect([o.alongM, o.offM]).toEqual([expect.closeTo(o.x), expect.closeTo(o.y)])
  })

  it('lets one kind run through a bed: as many as stand on what the others leave', async () => {
    const drifts = [
      { taxon: 'Helenium autumnale', count: 3 },
      { taxon: 'Helenium autumnale', count: 3 },
      { taxon: 'Nepeta × faassenii', isMatrix: true },
    ]
    const { layout } = await reworked({ ...asked, layout: { place: 'Open', drifts, viewedFrom: [180] } })
    const [a, b, through] = layout.drifts
    expect(a!.areaM2 + b!.areaM2 + through!.areaM2).toBeCloseTo(12, 0)
    expect(layout.plants.filter((p) => p.driftId === '3')).toHaveLength(through!.count)
    expect(through!.count * 0.866 * 0.45 ** 2).toBeCloseTo(through!.areaM2, 0)
    const twice = [drifts[2], { ...drifts[2]!, taxon: 'Hylotelephium spectabile' }]
    await expect(reworked({ ...asked, layout: { place: 'Open', drifts: twice } })).rejects.toThrow(
      /one kind runs through a bed/,
    )
  })

  it('does the arithmetic of divisions, packs, mulch, lime and drip, and of growth, without a plan', async () => {
    const told = await reworked({
      version: 1,
      division: [{ taxon: 'Helenium autumnale', shoots: 24, years: 3 }],
      quantities: {
        plants: [
          {
            name: 'Helenium autumnale',
            count: 17,
            spareShare: 0,
            packs: [
              { name: 'pot', holds: 1, price: 250 },
              { name: 'tray of 6', holds: 6, price: 1200 },
              { name: 'tray of 12', holds: 12, price: 2000 },
            ],
          },
        ],
        shopping: {
          needs: [
            { item: 'Nepeta × faassenii', count: 5, spareShare: 0 },
            { item: 'Rodgersia podophylla', count: 2 },
          ],
          offers: [
            {
              supplier: 'Marsh nursery',
              item: 'Nepeta × faassenii',
              packs: [{ name: 'pot', holds: 1, price: 350 }],
              pricedOn: '2026-03-01',
            },
          ],
        },
        layers: [{ name: 'mulch', areaM2: 12, depthM: 0.07 }],
        soil: { areaM2: 10, ph: 5.5, toPh: 6.5, texture: 'clay' },
        drip: { areaM2: 10, lineSpacingM: 0.3, emitterSpacingM: 0.3, emitterLitresPerHour: 2, mm: 20 },
      },
      growth: [{ taxon: 'Helenium autumnale', years: [0, 3] }],
    })
    expect(told.division[0]).toMatchObject({ ok: true })
    expect(told.quantities.plants[0]).toMatchObject({ wanted: 17, price: 3200, holds: 18 })
    expect(told.quantities.shopping).toMatchObject({
      price: 1750,
      suppliers: [{ supplier: 'Marsh nursery' }],
      unpriced: [{ item: 'Rodgersia podophylla' }],
    })
    expect(told.quantities.layers[0]).toMatchObject({ litres: expect.closeTo(840), barrows: 10, bags: null })
    // Five kilograms of limestone for ten square metres of clay, in two turns.
    expect(told.quantities.soil).toMatchObject({
      kgInAll: 5,
      turns: [{ kg: 2.5 }, { kg: 2.5, afterMonths: 6 }],
    })
    expect(told.quantities.drip).toMatchObject({ emitters: 111, litresPerHour: 222 })
    expect(told.growth[0]!.sizes[1]!.heightM).toBeGreaterThan(told.growth[0]!.sizes[0]!.heightM)
  })

  it.each([
    ['is not JSON', '{', /is not JSON/],
    ['asks what is not known', { version: 1, nonsense: 1 }, /Unrecognized key/],
    ['has no plan', { version: 1, fit: ['Hosta sieboldiana'] }, /asked of a plan/],
    [
      'names plantings that are not there',
      { ...asked, plantings: 'none.csv', fit: [] },
      /none.csv: there is no such file/,
    ],
    ['names no kind', { ...asked, fit: ['Nowhere inventa'] }, /fit: no kind is called Nowhere inventa/],
    [
      'locks no kind',
      { ...asked, palette: { place: 'Open', locked: ['Nowhere inventa'] } },
      /palette.locked: no kind/,
    ],
    ['names no tag', { ...asked, relocation: { leaving: ['Z9'] } }, /nothing has the tag Z9/],
    ['names no place', { ...asked, palette: { place: 'Nowhere' } }, /no bed or pot called Nowhere/],
    [
      'has more plants than ground',
      { ...asked, layout: { place: 'Open', drifts: [{ taxon: 'Helenium autumnale', count: 900 }] } },
      /at their spacing, and Open has/,
    ],
    ['decides for a spot that is none', { ...asked, relocation: { leaving: ['A1'], decided: { A1: { spot: 'x' } } } }, /there is no spot x/], // prettier-ignore
  ])('refuses a file that %s', async (_, of, says) => {
    const { code, err } = await refused(of)
    expect(code).toBe(1)
    expect(err).toMatch(says)
  })
})
