import { describe, expect, it } from 'vitest'
import { backdropOf } from '../frontView/index.ts'
import { obstructionOf, seenAlone, type Feature } from './index.ts'

const said = { note: 'Key under the third pot', health: 'failing', handles: [], matters: 'to us alone' }
const cut = [{ date: '2025-02-01', action: 'lowered', heightM: 1.9 }]
const growth = { measuredOn: '2020-06-01', matureHeightM: 9, yearsToMature: 30 }
const line = {
  type: 'LineString' as const,
  coordinates: [
    [0, 3],
    [6, 3],
  ] as [number, number][],
}
const ring = [
  [0, 3],
  [6, 3],
  [6, 5],
  [0, 5],
  [0, 3],
] as [number, number][]

const feature = (
  kind: Feature['kind'],
  geometry: Feature['geometry'],
  properties: Record<string, unknown>,
): Feature => ({ id: kind, kind, name: kind, from: '2001-01-01', to: null, geometry, properties })

const features = [
  feature(
    'building',
    { type: 'Polygon', coordinates: [ring] },
    { heightM: 6, overhang: 0.5, sillM: 1, ...said },
  ),
  feature('wall', line, { heightM: 2.4, transmission: 0, thicknessM: 0.3, events: cut, ...said }),
  feature('fence', line, { heightM: 1.8, transmission: 0.4, thicknessM: 0.05, ...said }),
  feature('hedge', line, { heightM: 2, transmission: 0.1, thicknessM: 0.8, events: cut, growth, ...said }),
  feature(
    'tree',
    { type: 'Point', coordinates: [3, 6] },
    {
      heightM: 7,
      crownRadiusM: 2,
      crownShape: 'cone',
      trunkRadiusM: 0.2,
      clearStemM: 1.5,
      transmissionInLeaf: 0.2,
      transmissionBare: 0.7,
      leafFrom: '04-20',
      leafTo: '10-25',
      events: [{ date: '2024-02-01', action: 'thinned', fraction: 0.3 }],
      growth: { ...growth, matureCrownRadiusM: 4 },
      ...said,
    },
  ),
]

describe('a feature as anybody sees it', () => {
  it.each(features)(
    'a $kind casts the same shade and looks the same, and nothing else is told of it',
    (whole) => {
      const seen = seenAlone(whole)
      expect(obstructionOf(seen)).toEqual(obstructionOf(whole))
      const bed = ring.slice(0, 4).map(([x, y]): [number, number] => [x, y - 3])
      const fromTheSouth = { fromDeg: 180, awayM: 3, eyeM: 1.6 }
      for (const on of ['2024-01-15', '2026-07-15', '2036-07-15']) {
        const backdrop = backdropOf(bed, [seen], fromTheSouth, on)
        expect(backdrop.length).toBeGreaterThan(0)
        expect(backdrop).toEqual(backdropOf(bed, [whole], fromTheSouth, on))
      }
      for (const name of Object.keys(said)) expect(seen.properties).not.toHaveProperty(name)
    },
  )
})
