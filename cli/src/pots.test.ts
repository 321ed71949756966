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
})
