import * as Astronomy from 'astronomy-engine'
import { spawnSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { projectRoot } from './paths.ts'
import { border } from './test/border.ts'

const folder = mkdtempSync(join(tmpdir(), 'border-cli-'))
const file = (name: string, text: string) => {
  const path = join(folder, name)
  writeFileSync(path, text)
  return path
}

const garden = {
  version: 1,
  name: 'Line',
  latitude: 52,
  longitude: 0,
  timeZone: 'Europe/London',
  coordinates: 'local-metres',
  northDeg: 0,
}
const longWall = {
  type: 'Feature',
  properties: { kind: 'wall', name: 'South wall', heightM: 0.75 },
  geometry: {
    type: 'LineString',
    coordinates: [
      [-5000, 0],
      [5000, 0],
    ],
  },
}
const plan = file('plan.geojson', JSON.stringify({ type: 'FeatureCollection', garden, features: [longWall] }))

describe('border light', () => {
  it('agrees with the closed form: a long wall h high d metres south is a horizon at latitude + atan(h/d)', async () => {
    const date = '2026-10-20'
    const dec = Astronomy.Equator(
      Astronomy.Body.Sun,
      Astronomy.MakeTime(new Date(`${date}T12:00:00Z`)),
      new Astronomy.Observer(52, 0, 0),
      true,
      true,
    ).dec
    const dayLength = (latitude: number) =>
      (2 * Math.acos(-Math.tan((latitude * Math.PI) / 180) * Math.tan((dec * Math.PI) / 180)) * 180) /
      Math.PI /
      15
    const points = file('points.csv', 'name,x,y\nfour,0,4\neight,0,8\nopen,0,-1\n')
    const run = await border('light', plan, '--points', points, '--dates', date, '--json')
    expect(run.status).toBe(0)
    const { hours } = JSON.parse(run.stdout)
    const expected = [4, 8, Infinity].map((d) => dayLength(52 + (Math.atan(0.75 / d) * 180) / Math.PI))
    hours.forEach((h: Record<string, number>, i: number) => {
      expect(Math.abs(h.sunHours! - expected[i]!)).toBeLessThan(0.2)
      expect(h.morningHours! + h.middayHours! + h.afternoonHours!).toBeCloseTo(h.sunHours!, 9)
    })
    expect(expected[0]).toBeLessThan(expected[2]! - 0.7)
  })

  it('reads a plan and points in longitude and latitude as it reads the same ones in metres', async () => {
    // One metre is 1 / 111,267 of a degree of latitude at 52 N (Snyder 1987, WGS 84).
    const degrees = (metres: number) => 52 + metres / 111_267
    const wall = {
      ...longWall,
      geometry: {
        ...longWall.geometry,
        coordinates: [
          [-0.07, 52],
          [0.07, 52],
        ],
      },
    }
    const wgs84 = { type: 'FeatureCollection', garden: { ...garden, coordinates: 'wgs84' }, features: [wall] }
    const run = async (planFile: string, y: number) => {
      const points = file(`at-${y}.csv`, `name,x,y\np,0,${y}\n`)
      const ran = await border('light', planFile, '--points', points, '--dates', '2026-10-20', '--json')
      return JSON.parse(ran.stdout).hours[0].sunHours as number
    }
    const inDegrees = await run(file('wgs84.geojson', JSON.stringify(wgs84)), degrees(4))
    const inMetres = await run(plan, 4)
    expect(inDegrees).toBeCloseTo(inMetres, 5)
  })

  it('names every fault of both files and exits with 1', async () => {
    const points = file('bad.csv', 'name,x,y\na,east,1\nb,2,\n')
    const run = await border(
      'light',
      file('bad.geojson', '{"type": "FeatureCollection",\n "garden": }'),
      '--points',
      points,
      '--dates',
      '2026-02-30',
    )
    expect(run.status).toBe(1)
    expect(run.stdout).toBe('')
    expect(run.stderr).toMatch(/--dates: 2026-02-30 is not a date/)
    expect(run.stderr).toMatch(/bad\.geojson, line 2, character \d+/)
    expect(run.stderr).toMatch(/bad\.csv, line 2, column x: must be a number/)
    expect(run.stderr).toMatch(/bad\.csv, line 3, column y/)
  })
})

describe('border', () => {
  it.each([
    ['an unknown command', ['lihgt'], 2],
    ['light without its points', ['light', plan], 2],
    ['an unknown option', ['sun', '--latitude', '52'], 2],
    ['a latitude off the globe', ['sun', '--lat', '95', '--lon', '0', '--at', '2026-06-21T11:00:00Z'], 1],
    ['an instant without its offset', ['sun', '--lat', '52', '--lon', '0', '--at', '2026-06-21T11:00:00'], 1],
    ['a folder that is not there', ['import', join(folder, 'nowhere')], 1],
  ])('%s ends with the exit code scripts rely on', async (_, args, code) => {
    const run = await border(...args)
    expect([run.status, run.stdout, run.stderr.length > 0]).toEqual([code, '', true])
  })

  it('lists its commands when called alone, from its front door, which hands the exit code on', () => {
    const atTheDoor = (...args: string[]) =>
      spawnSync(join(projectRoot, 'border'), args, { encoding: 'utf8' })
    expect(atTheDoor('lihgt')).toMatchObject({ status: 2, stdout: '' })
    const run = atTheDoor()
    expect(run.status).toBe(0)
    for (const name of ['demo', 'start', 'check', 'stop', 'reset-demo', 'import', 'light', 'sun'])
      expect(run.stdout).toContain(`./border ${name}`)
  })

  it('takes a negative number after an option for its value, not for another option', async () => {
    const at = ['--at', '2026-06-21T11:00:00Z', '--json']
    const apart = await border('sun', '--lat', '-33.9', '--lon', '-105.2', ...at)
    expect(apart.stderr).toBe('')
    expect(apart.stdout).toBe((await border('sun', '--lat=-33.9', '--lon=-105.2', ...at)).stdout)
    // Fifteen degrees of longitude are an hour of the sun's day: it stands as it did at Greenwich so much earlier.
    const here = JSON.parse((await border('sun', '--lat', '-33.9', '--lon', '-105', ...at)).stdout)
    const there = JSON.parse(
      (await border('sun', '--lat', '-33.9', '--lon', '0', '--at', '2026-06-21T04:00:00Z', '--json')).stdout,
    )
    expect(here.elevationDeg).toBeCloseTo(there.elevationDeg, 1)
  })

  it('puts the June sun over Greenwich due south at local noon, at 90 - 51.48 + 23.44 degrees', async () => {
    const run = await border('sun', '--lat', '51.48', '--lon', '0', '--at', '2026-06-21T12:01:55Z', '--json')
    const at = JSON.parse(run.stdout)
    expect(at.azimuthDeg).toBeCloseTo(180, 0)
    expect(Math.abs(at.elevationDeg - 61.96)).toBeLessThan(0.05)
  })
})

describe('border light over a whole plan', () => {
  const bed = {
    type: 'Feature',
    properties: { kind: 'bed', name: 'North of it' },
    geometry: {
      type: 'Polygon',
      coordinates: [
        [
          [0, 1],
          [4, 1],
          [4, 5],
          [0, 5],
          [0, 1],
        ],
      ],
    },
  }
  const screen = {
    type: 'Feature',
    properties: { kind: 'wall', name: 'Screen', heightM: 3, to: '2026-03-01' },
    geometry: {
      type: 'LineString',
      coordinates: [
        [-6, 0],
        [10, 0],
      ],
    },
  }
  const walled = file(
    'walled.geojson',
    JSON.stringify({ type: 'FeatureCollection', garden, features: [bed, screen] }),
  )

  it('gives a field and its difference to another day, as CSV and as GeoJSON of the same hours', async () => {
    const args = ['light', walled, '--field', '2026-10-20', '--less', '2026-02-01', '--cell', '1']
    const csv = (await border(...args)).stdout.trim().split('\n')
    expect(csv[0]).toBe(
      'bed,x,y,sun_hours,morning_hours,midday_hours,afternoon_hours,hot_hours,class,change_hours',
    )
    expect(csv).toHaveLength(1 + 16)
    const { features } = JSON.parse((await border(...args, '--geojson')).stdout)
    const [first] = features
    const cells = csv[1]!.split(',')
    expect(first.properties.sunHours.toFixed(2)).toBe(cells[3])
    // The wall is gone by October: open ground now, and all that it took is gained.
    const open = await border(
      'light',
      walled,
      '--points',
      file('p.csv', 'name,x,y\np,0.5,1.5\n'),
      '--dates',
      '2026-10-20',
      '--json',
    )
    expect(first.properties.sunHours).toBeCloseTo(JSON.parse(open.stdout).hours[0].sunHours, 2)
    expect(first.properties.changeHours).toBeGreaterThan(6)
  })

  it('names the plantings a change has moved out of their light, with the change', async () => {
    const plantings = file(
      'plantings.csv',
      'tag,place,taxon,count,planted_on,x,y\nA-1,North of it,Astrantia major,1,2024-04-01,1,2\n',
    )
    const run = await border(
      'light',
      walled,
      '--plantings',
      plantings,
      '--affected',
      '2026-02-01,2026-06-01',
      '--json',
    )
    expect(JSON.parse(run.stdout).affected).toMatchObject([
      { tag: 'A-1', place: 'North of it', causes: [{ name: 'Screen', what: 'gone', date: '2026-03-01' }] },
    ])
  })

  it('explains a simulated log of the garden after the wall went by the wall that is still drawn', async () => {
    const standing = { ...screen, properties: { ...screen.properties, to: undefined } }
    const drawn = file(
      'drawn.geojson',
      JSON.stringify({ type: 'FeatureCollection', garden, features: [bed, standing] }),
    )
    const log = (
      await border('light', walled, '--simulate-log', '--at', '2,1.5', '--from', '2026-04-10', '--days', '14')
    ).stdout
    const run = await border(
      'light',
      drawn,
      '--explain',
      '--log',
      file('log.csv', log),
      '--at',
      '2,1.5',
      '--json',
    )
    const [first] = JSON.parse(run.stdout).explanations
    expect(['gone', 'lowered']).toContain(first.what)
    expect(first.obstruction).toBe('Screen')
    expect(first.posterior).toBeGreaterThan(0.5)
  })

  it.each([
    ['two tasks at once', ['--field', '2026-06-01', '--explain'], 2, /what to do with it/],
    [
      'readings of the future',
      ['--explain', '--readings', file('future.csv', 'time,x,y,seen\n2999-01-01T12:00Z,1,2,sun\n')],
      1,
      /line 2, column time: .* lies in the future/,
    ],
    [
      'an unknown word for light',
      ['--explain', '--readings', file('word.csv', 'time,x,y,seen\n2026-06-01T12:00Z,1,2,bright\n')],
      1,
      /seen: must be one of: sun, dappled, shade/,
    ],
    [
      'a log without its place',
      ['--explain', '--log', file('l.csv', 'time,lux\n2026-06-01T12:00Z,5\n')],
      2,
      /--at takes/,
    ],
    ['cells of no size', ['--field', '2026-06-01', '--cell', '0'], 1, /between 0\.05 and 10/],
  ])('refuses %s', async (_, args, code, words) => {
    const run = await border('light', walled, ...args)
    expect([run.status, run.stdout]).toEqual([code, ''])
    expect(run.stderr).toMatch(words)
  })
})
