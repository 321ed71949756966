import { checkFeature, featureProperties, type PlanFeature } from '@border/core'
import { describe, expect, it } from 'vitest'
import { drawnKinds, kindFields } from './kinds.ts'
import { completed, saidOf, withSaid } from './said.ts'

/** What a file says of each kind and a screen says elsewhere: as a whole, by a drawing, or as what happened. */
const ELSEWHERE = ['kind', 'name', 'from', 'to', 'events', 'handles', 'earlier', 'standardErrors']

describe('what can be said of a part of the plan', () => {
  it.each(drawnKinds)('of a %s is all that a file can say', (kind) => {
    const inFiles = Object.keys(featureProperties[kind].shape).filter((key) => !ELSEWHERE.includes(key))
    const onScreen = new Set(kindFields[kind].map((f) => f.name.split('.')[0]))
    // The schema lets every screen grow; of a wall that says nothing.
    const grows = kind === 'hedge' || kind === 'tree'
    expect(inFiles.filter((key) => !onScreen.has(key) && (grows || key !== 'growth'))).toEqual([])
  })

  it('shows shares in hundredths and bearings as they are typed, and keeps them as a file would', () => {
    const fence = { kind: 'fence', properties: { heightM: 2, transmission: 0.25 } } as const
    expect(saidOf(fence)).toMatchObject({ heightM: 2, transmission: 25 })
    expect(withSaid(fence, 'transmission', 40)).toEqual({ heightM: 2, transmission: 0.4 })
    const bed = { kind: 'bed', properties: { viewedFrom: [180], mine: 'kept' } } as const
    expect(saidOf(bed).viewedFrom).toBe('180')
    expect(withSaid(bed, 'viewedFrom', '180, 270')).toEqual({ viewedFrom: [180, 270], mine: 'kept' })
    expect(withSaid(bed, 'viewedFrom', '')).toEqual({ mine: 'kept' })
  })

  it('gives eaves without a height that of the wall, and leaves none out', () => {
    const house = { kind: 'building', properties: { heightM: 6, overhang: 0.5 } } as const
    expect(saidOf(house)['overhang.depthM']).toBe(0.5)
    const wider = withSaid(house, 'overhang.depthM', 0.8)
    expect(completed({ kind: 'building', properties: wider }).overhang).toEqual({ depthM: 0.8, heightM: 6 })
    expect(
      completed({ kind: 'building', properties: withSaid(house, 'overhang.depthM', undefined) }),
    ).toEqual({
      heightM: 6,
    })
  })

  it('that is half said is refused in words, and not lost', () => {
    const tree: PlanFeature = {
      kind: 'tree',
      name: 'Ash',
      from: null,
      to: null,
      geometry: { type: 'Point', coordinates: [0, 0] },
      properties: withSaid(
        { kind: 'tree', properties: { heightM: 8, crownRadiusM: 3 } },
        'growth.matureHeightM',
        15,
      ),
    }
    const read = checkFeature({
      type: 'Feature',
      geometry: tree.geometry,
      properties: { ...tree.properties, kind: 'tree', name: 'Ash' },
    })
    expect(read.ok ? [] : read.problems.map((p) => p.property)).toContain('growth.measuredOn')
  })
})
