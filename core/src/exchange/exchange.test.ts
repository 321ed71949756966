import { describe, expect, it } from 'vitest'
import { metresPerDegree } from '../geometry/index.ts'
import { obstructionOf } from '../garden/index.ts'
import { problemText, readPlan, readPlantings, readPoints, readWeather } from './index.ts'

const head = {
  version: 1,
  name: 'Yard',
  latitude: 52.1,
  longitude: 1.3,
  timeZone: 'Europe/London',
  coordinates: 'local-metres',
  northDeg: 0,
}
const square = [
  [
    [0, 0],
    [4, 0],
    [4, 4],
    [0, 4],
    [0, 0],
  ],
]
const feature = (properties: object, coordinates: unknown = square, type = 'Polygon') => ({
  type: 'Feature',
  properties,
  geometry: { type, coordinates },
})
const plan = (features: unknown[], garden: object = head) =>
  JSON.stringify({ type: 'FeatureCollection', garden, features })
const problems = (text: string) => {
  const read = readPlan(text)
  return read.ok ? [] : read.problems.map(problemText)
}

describe('plan.geojson', () => {
  it('keeps unknown properties and fills in defaults', () => {
    const read = readPlan(
      plan([feature({ kind: 'bed', name: 'Long border', soilTexture: 'loam', bedNumber: 7 })]),
    )
    expect(read).toMatchObject({
      ok: true,
      value: { features: [{ name: 'Long border', from: null, properties: { bedNumber: 7 } }] },
    })
    const tree = readPlan(
      plan([
        feature(
          { kind: 'tree', name: 'Oak', heightM: 9, crownRadiusM: 3, leafFrom: '04-20', leafTo: '11-05' },
          [1, 2],
          'Point',
        ),
      ]),
    )
    if (!tree.ok) throw new Error('refused')
    expect(obstructionOf({ ...tree.value.features[0]!, id: 'o' })).toMatchObject({
      kind: 'tree',
      x: 1,
      y: 2,
      crownShape: 'ellipsoid',
      transmissionBare: 0.6,
    })
  })

  it('turns WGS 84 into metres east and north of the garden', () => {
    const garden = { ...head, coordinates: 'wgs84' }
    const read = readPlan(
      plan([feature({ kind: 'container', name: 'Pot' }, [1.301, 52.1005], 'Point')], garden),
    )
    // Lengths of a degree at 52 N from published tables: 111.26 km of latitude; 68.68 km of longitude at 52 N.
    const [x, y] = read.ok ? (read.value.features[0]!.geometry.coordinates as number[]) : []
    expect(x).toBeCloseTo(68.5, 0)
    expect(y).toBeCloseTo(55.6, 0)
    expect(metresPerDegree(45)).toEqual({
      lat: expect.closeTo(111_131.7, 0),
      lon: expect.closeTo(78_846.8, 0),
    })
  })

  it.each([
    [
      'broken JSON',
      '{\n "type": "FeatureCollection",\n "garden": }',
      /line 3, character \d+: not valid JSON/,
    ],
    ['an abrupt end', '{"type":\n', /line 2, character 1: not valid JSON/],
    [
      'an unknown kind',
      plan([feature({ kind: 'pond', name: 'P' })]),
      /feature 1 “P”, kind: must be one of: bed/,
    ],
    [
      'a missing height',
      plan([feature({ kind: 'building', name: 'Shed' })]),
      /feature 1 “Shed”, heightM: is missing/,
    ],
    [
      'a height in words',
      plan([feature({ kind: 'building', name: 'S', heightM: 'tall' })]),
      /heightM: must be a number/,
    ],
    [
      'a tree above 120 m',
      plan([feature({ kind: 'tree', name: 'T', heightM: 130, crownRadiusM: 3 }, [0, 0], 'Point')]),
      /heightM: must be at most 120/,
    ],
    [
      'a self-crossing bed',
      plan([
        feature({ kind: 'bed', name: 'B' }, [
          [
            [0, 0],
            [4, 4],
            [4, 0],
            [0, 4],
            [0, 0],
          ],
        ]),
      ]),
      /geometry: the outline crosses itself/,
    ],
    [
      'a fence that is thinned',
      plan([
        feature(
          {
            kind: 'fence',
            name: 'F',
            heightM: 2,
            events: [
              { date: '2026-01-02', action: 'lowered', heightM: 1 },
              { date: '2026-01-03', action: 'thinned', fraction: 0.5 },
            ],
          },
          [
            [0, 0],
            [4, 0],
          ],
          'LineString',
        ),
      ]),
      /events\.1\.action: only a tree or a hedge can be thinned/,
    ],
    [
      'a corner said twice',
      plan([
        feature({ kind: 'bed', name: 'B' }, [
          [
            [0, 0],
            [4, 0],
            [4, 0],
            [4, 4],
            [0, 0],
          ],
        ]),
      ]),
      /geometry: corners 2 and 3 are the same point: leave one of them out/,
    ],
    [
      'longitudes and latitudes with a north of their own',
      plan([], { ...head, coordinates: 'wgs84', northDeg: 30 }),
      /garden\.northDeg: longitudes and latitudes have north at the top/,
    ],
    [
      'a bed without area',
      plan([
        feature({ kind: 'bed', name: 'B' }, [
          [
            [0, 0],
            [4, 0],
            [8, 0],
            [0, 0],
          ],
        ]),
      ]),
      /encloses no area/,
    ],
    [
      'an open ring',
      plan([
        feature({ kind: 'bed', name: 'B' }, [
          [
            [0, 0],
            [4, 0],
            [4, 4],
            [0, 4],
          ],
        ]),
      ]),
      /ring is not closed/,
    ],
    [
      'the wrong geometry',
      plan([feature({ kind: 'wall', name: 'W', heightM: 2 })]),
      /a wall is a LineString, not a Polygon/,
    ],
    [
      'a lifeline backwards',
      plan([feature({ kind: 'bed', name: 'B', from: '2024-05-01', to: '2023-05-01' })]),
      /to: must be after from/,
    ],
    [
      'a date that is none',
      plan([feature({ kind: 'bed', name: 'B', from: '2024-02-30' })]),
      /from: must be a date/,
    ],
    ['a latitude off the Earth', plan([], { ...head, latitude: 95 }), /garden.latitude: must be at most 90/],
    [
      'an unknown zone',
      plan([], { ...head, timeZone: 'Europe/Nowhere' }),
      /garden.timeZone: must be an IANA/,
    ],
    [
      'two places of one name',
      plan([feature({ kind: 'bed', name: 'B' }), feature({ kind: 'bed', name: 'b' })]),
      /feature 2 “b”, name: another place has this name/,
    ],
  ])('refuses %s and says where', (_, text, message) => {
    expect(problems(text).join('\n')).toMatch(message)
  })

  it('names every problem, not the first', () => {
    expect(
      problems(
        plan([feature({ kind: 'building', name: 'A' }), feature({ kind: 'pond' })], { ...head, version: 2 }),
      ),
    ).toHaveLength(3)
  })
})

describe('plantings.csv', () => {
  const knows = {
    places: new Map([
      ['long border', 'bed'],
      ['pot 1', 'container'],
    ] as const),
    taxa: new Set(['astrantia major']),
  }
  const read = (csv: string) => readPlantings(csv, knows, '2026-09-14')
  const said = (csv: string) => {
    const r = read(csv)
    return r.ok ? [] : r.problems.map(problemText)
  }
  const columns = 'tag,place,taxon,count,planted_on,x,y,note'

  it('reads rows with notes over several lines and keeps line numbers right after them', () => {
    const csv = `${columns}\nA1,Long border,Astrantia major,5,2021-04-02,1,2,"pale\nform"\nA2,Nowhere,Astrantia major,5,2021-04-02,1,2,\n`
    expect(said(csv)).toEqual(['plantings.csv, line 4, column place: no place is called Nowhere'])
  })

  it.each([
    ['A1,Long border,Astrantia major,many,2021-04-02,1,2,', 'line 2, column count: must be a number'],
    ['A1,Long border,Astrantia major,2.5,2021-04-02,1,2,', 'line 2, column count: must be a whole number'],
    [
      'A1,Long border,Astrantia minor,5,2021-04-02,1,2,',
      'line 2, column taxon: Astrantia minor is not in the plant library',
    ],
    [
      'A1,Long border,Astrantia major,5,2027-04-02,1,2,',
      'line 2, column planted_on: 2027-04-02 is after today',
    ],
    ['A1,Long border,Astrantia major,5,2021-04-02,,,', 'line 2, column x: a planting in a bed needs x and y'],
    [',Long border,Astrantia major,5,2021-04-02,1,2,', 'line 2, column tag: is missing'],
    [
      'A1,Pot 1,Astrantia major,5,2021-04-02,,,\nA1,Pot 1,Astrantia major,5,2021-04-02,,,',
      'line 3, column tag: A1 is already used on line 2',
    ],
    ['A1,Pot 1,Astrantia major,5,2021-04-02,,,,surplus', 'line 2: has 9 values for 8 columns'],
  ])('refuses %s', (row, message) => {
    expect(said(`${columns}\n${row}\n`).join('\n')).toContain(message)
  })

  it('says which column is missing', () => {
    expect(said('tag,place,taxon,count\nA1,Pot 1,Astrantia major,5\n')).toEqual([
      'plantings.csv, line 1, column planted_on: this column is missing',
    ])
  })
})

it('weather days ascend and have their minimum below their maximum', () => {
  const r = readWeather('day,min_c,max_c\n2024-01-02,3,8\n2024-01-01,9,8\n')
  expect(r.ok ? [] : r.problems.map((p) => `${p.line} ${p.column}`)).toEqual(['3 day', '3 min_c'])
})

it('points may have a height', () => {
  expect(readPoints('name,x,y,z\np,1,2,0.5\nq,3,4,\n')).toEqual({
    ok: true,
    value: [
      { name: 'p', x: 1, y: 2, z: 0.5, line: 2 },
      { name: 'q', x: 3, y: 4, z: 0, line: 3 },
    ].map(({ line: _, ...p }) => p),
  })
})
