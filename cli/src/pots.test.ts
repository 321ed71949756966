import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { border } from './test/border.ts'

const folder = mkdtempSync(join(tmpdir(), 'border-pots-'))
const asked = (of: object | string) => {
  const path = join(folder, 'pots.json')
  writeFileSync(path, typeof of === 'string' ? of : JSON.stringify({ version: 1, on: '2026-06-01', ...of }))
  return ['pots', path, '--json']
}
const here = { latitude: 51.5, longitude: -0.1 }
const box = { shape: 'box', lengthM: 1, widthM: 0.4, depthM: 0.425, wallM: 0.02, material: 'zinc', holes: 3 }
const plan = (more: object) => {
  writeFileSync(
    join(folder, 'plan.geojson'),
    JSON.stringify({
      type: 'FeatureCollection',
      garden: {
        version: 1,
        name: 'Test',
        ...here,
        timeZone: 'Europe/London',
        coordinates: 'local-metres',
        northDeg: 0,
      },
      features: [
        {
          type: 'Feature',
          properties: { kind: 'building', name: 'House', heightM: 6, overhang: { depthM: 1, heightM: 5 } },
          geometry: { type: 'Polygon', coordinates: [[[-4, 2], [8, 2], [8, 9], [-4, 9], [-4, 2]]] }, // prettier-ignore
        },
        {
          type: 'Feature',
          properties: { kind: 'container', name: 'South pot', ...box },
          geometry: { type: 'Point', coordinates: [2, -2] },
        },
        {
          type: 'Feature',
          properties: { kind: 'container', name: 'North pot', ...box },
          geometry: { type: 'Point', coordinates: [2, 9.6] },
        },
      ],
    }),
  )
  return { plan: 'plan.geojson', ...more }
}

describe('pots on files', () => {
  it('hold what their shapes do, and take so many bags of what is said', async () => {
    const mix = [{ name: 'compost', parts: 1 }]
    const { stdout, status } = await border(
      ...asked({ ...here, pots: [{ name: 'Box', container: box, mix }] }),
    )
    expect(status).toBe(0)
    const { pots, climate } = JSON.parse(stdout)
    expect(climate).toMatch(/simulated/)
    expect(pots[0]).toMatchObject({
      name: 'Box',
      assumed: [],
      brimfulLitres: expect.closeTo(170, 6),
      mixLitres: expect.closeTo(160, 6),
      mix: {
        isSaid: true,
        bought: [{ name: 'compost', litres: expect.closeTo(160, 6), bags: 4, bagLitres: 40 }],
      },
    })
    expect(pots[0].water).toHaveLength(12)
  })

  it('have the light of the plan at their rims, and under eaves no rain', async () => {
    const { stdout } = await border(...asked(plan({})))
    const [south, north] = JSON.parse(stdout).pots
    expect([south.name, north.name]).toEqual(['South pot', 'North pot'])
    expect(south.light.season.total).toBeGreaterThan(north.light.season.total + 3)
    expect([south.light.eaves, north.light.eaves]).toEqual([undefined, 'House'])
  })

  it('come through an absence as the file asks', async () => {
    const plants = [{ taxon: 'Petunia × atkinsiana', count: 6 }]
    const pots = [{ name: 'Box', container: box, plants }]
    const of = async (more: object) =>
      JSON.parse(
        (
          await border(
            ...asked({ ...here, pots, absence: { from: '2026-07-04', to: '2026-07-25' }, ...more }),
          )
        ).stdout,
      )
    const { absence } = await of({})
    expect(absence.years).toBe(10)
    expect(absence.visits.length).toBe(Math.ceil(21 / absence.everyDays) - 1)
    expect((await of({ absence: undefined })).absence).toBeUndefined()
  })

  it.each<[string, object, RegExp]>([
    ['no place on Earth', { pots: [{ name: 'Box', container: box }] }, /latitude and longitude are needed/],
    ['no pot', { ...here }, /neither plan nor pots holds a container/],
    [
      'a pot of no width',
      { ...here, pots: [{ name: 'Box', container: { ...box, widthM: 0 } }] },
      /pots\.0\.container\.widthM/,
    ],
    [
      'less than no hole',
      { ...here, pots: [{ name: 'Box', container: { ...box, holes: -1 } }] },
      /pots\.0\.container\.holes/,
    ],
    [
      'a plant that is not known',
      { ...here, pots: [{ name: 'Box', container: box, plants: [{ taxon: 'Planta ignota', count: 1 }] }] },
      /pots\.0\.plants\.0\.taxon: Planta ignota/,
    ],
    [
      'a mix of nothing known',
      { ...here, pots: [{ name: 'Box', container: box, mix: [{ name: 'moon dust', parts: 1 }] }] },
      /pots\.0\.mix\.0\.name/,
    ],
    [
      'an absence that ends before it begins',
      { ...here, pots: [{ name: 'Box', container: box }], absence: { from: '2026-07-04', to: '2026-07-01' } },
      /absence: must be of one to 60 days/,
    ],
    [
      'a fill of a pot that is not there',
      plan({ fills: { 'West pot': { season: 'winter' } } }),
      /no container called West pot/,
    ],
  ])('is refused with %s, which is named', async (_, of, says) => {
    const { status, stdout, stderr } = await border(...asked(of))
    expect([status, stdout]).toEqual([1, ''])
    expect(stderr).toMatch(says)
  })

  it('tell when their mix is spent, what findings make of their water, and which plant goes on to which pot', async () => {
    const mix = [{ name: 'compost', parts: 1 }]
    const tub = (name: string, depthM: number, more: object = {}) => ({
      name,
      container: { shape: 'tapered', diameterM: depthM, depthM, rimHeightM: depthM + 0.02 },
      ...more,
    })
    const { stdout, status } = await border(
      ...asked({
        ...here,
        on: '2025-11-10',
        pots: [
          tub('Small', 0.3, {
            plants: [{ taxon: 'Laurus nobilis', count: 1, role: 'focal', plantedOn: '2015-04-01' }],
            history: [{ filledOn: '2021-04-01', mix }],
            checks: [
              { day: '2025-08-01', kind: 'watered' },
              { day: '2025-08-02', kind: 'felt', felt: 'dry' },
            ],
          }),
          tub('Large', 0.6),
        ],
      }),
    )
    expect(status).toBe(0)
    const { pots, pottingOn } = JSON.parse(stdout)
    // A fifth of compost goes each year: 0.8 to the power of 4.6.
    expect(pots[0].mix.state.sunk).toBeCloseTo(1 - 0.8 ** 4.61, 1)
    expect(pots[0].mix.state.topUpOn <= '2025-11-10').toBe(true)
    expect(pots[0].factor.factor).toBeGreaterThan(1)
    expect(pots[1].factor).toBeNull()
    expect(pottingOn).toHaveLength(1)
    expect(pottingOn[0]).toMatchObject({ taxon: 'Laurus nobilis', pot: 'Small' })
    expect(pottingOn[0].steps[0]).toMatchObject({ season: 2026, isMoved: true })
    expect(pottingOn[0].steps[0].window.from.slice(0, 4)).toBe('2026')
  })

  it('under a roof are watered sooner than under the open sky, never later', async () => {
    const { stdout } = await border(
      ...asked({
        ...here,
        pots: [undefined, 'an overhang', 'a roof'].map((cover, i) => ({
          name: `Pot ${i}`,
          container: { ...box, cover },
          plants: [{ taxon: 'Tagetes patula', count: 5, plantedOn: '2026-05-20' }],
        })),
      }),
    )
    const days = JSON.parse(stdout).pots.map((p: { water: { days: { p50: number } | null }[] }) =>
      p.water.map((m) => m.days?.p50 ?? 32),
    )
    for (let m = 0; m < 12; m++) {
      expect(days[1][m]).toBeLessThanOrEqual(days[0][m])
      expect(days[2][m]).toBeLessThanOrEqual(days[1][m])
    }
    expect(days[2][5]).toBeLessThan(days[0][5])
  })

  it('with a finding of no kind, or more new than all of it, are refused with the place', async () => {
    const wrong = async (more: object) => {
      const { status, stderr } = await border(
        ...asked({ ...here, pots: [{ name: 'Box', container: box, ...more }] }),
      )
      expect(status).not.toBe(0)
      return stderr
    }
    const drained = { day: '2026-01-01', kind: 'drained', sampleLitres: 4, filledLitres: 3, drainedLitres: 3 }
    expect(await wrong({ checks: [drained] })).toMatch(/drainedLitres.*some of it stays/)
    expect(await wrong({ checks: [{ day: '2026-01-01', kind: 'felt', felt: 'soggy' }] })).toMatch(
      /pots\.0\.checks\.0\.felt/,
    )
    expect(
      await wrong({ history: [{ filledOn: '2026-01-01', mix: [{ name: 'grit', parts: 1 }], renewed: 1.5 }] }),
    ).toMatch(/pots\.0\.history\.0\.renewed/)
  })
})
