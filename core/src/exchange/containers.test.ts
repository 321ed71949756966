import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { potShapes, type PlanFeature } from '../garden/index.ts'
import { containerAs, readContainers, writeContainers } from './index.ts'

const pot = (name: string, at: [number, number], properties: Record<string, unknown>): PlanFeature => ({
  kind: 'container',
  name,
  from: null,
  to: null,
  geometry: { type: 'Point', coordinates: at },
  properties,
})
const read = (csv: string) => {
  const found = readContainers(csv)
  if (!found.ok) throw new Error(JSON.stringify(found.problems))
  return found.value
}

describe('containers as a file', () => {
  it('come back as they went out, whatever is said of them', () => {
    fc.assert(
      fc.property(
        fc.record(
          {
            shape: fc.constantFrom(...potShapes),
            diameterM: fc.integer({ min: 10, max: 200 }).map((v) => v / 100),
            rimHeightM: fc.integer({ min: 10, max: 150 }).map((v) => v / 100),
            depthM: fc.integer({ min: 5, max: 100 }).map((v) => v / 100),
            material: fc.constantFrom('terracotta', 'zinc', 'old oak', '=HYPERLINK("x")'),
            holes: fc.integer({ min: 0, max: 9 }),
            feet: fc.boolean(),
            movedBy: fc.constantFrom('one person', 'nobody'),
            cover: fc.constantFrom('a roof', 'an overhang'),
          },
          { requiredKeys: ['shape', 'rimHeightM'] },
        ),
        fc.integer({ min: -5000, max: 5000 }),
        (properties, x) => {
          const was = pot('By the "door", left', [x / 10, 4.25], properties)
          const [row] = read(writeContainers([was]))
          expect(containerAs(row!, undefined)).toEqual(was)
          expect(containerAs(row!, was)).toEqual(was)
        },
      ),
    )
  })

  it('say nothing by a column that is not there, and unsay by a cell that is blank', () => {
    const was = pot('Urn', [1, 2], { shape: 'bowl', diameterM: 0.6, holes: 2, facingDeg: 90 })
    const [row] = read('name,holes,material\nUrn,,lead\n')
    expect(containerAs(row!, was)).toEqual({
      ...was,
      properties: { shape: 'bowl', diameterM: 0.6, material: 'lead', facingDeg: 90 },
    })
    // Where it stands is needed of what is new alone.
    expect(containerAs(row!, undefined)).toBeUndefined()
  })

  it.each([
    ['name,x_m,y_m,shape\nA,1,2,heap\n', 2, 'shape'],
    ['name,x_m,y_m\nA,1,2\nA,3,4\n', 3, 'name'],
    ['name,x_m,y_m\nA,1,\n', 2, 'y_m'],
    ['name,x_m,y_m,diameter_m\nA,1,2,-0.4\n', 2, 'diameter_m'],
    ['name,x_m,y_m,holes\nA,1,2,none\n', 2, 'holes'],
    ['name,x_m,y_m,depth_m\nA,1,2,0.01\n', 2, 'depth_m'],
    ['name,x_m,y_m,feet\nA,1,2,perhaps\n', 2, 'feet'],
    ['x_m,y_m\n1,2\n', 1, 'name'],
  ])('name the line and the column of what is wrong: %s', (csv, line, column) => {
    const found = readContainers(csv)
    expect(found.ok ? [] : found.problems.map((p) => [p.line, p.column])).toEqual([[line, column]])
  })

  it('are the containers of a plan alone', () => {
    const bed = { ...pot('Bed', [0, 0], {}), kind: 'bed' as const }
    expect(
      writeContainers([bed, pot('A', [1, 2], {})])
        .trim()
        .split('\r\n'),
    ).toHaveLength(2)
  })
})
