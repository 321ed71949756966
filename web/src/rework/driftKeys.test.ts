import { gardenEndpoints, reworkEndpoints } from '@border/contract'
import { library, placesOn, unarranged, withDrift, type Arrangement } from '@border/core'
import { describe, expect, it } from 'vitest'
import { answerTo, today } from '../test/server.ts'
import { keyedDrift } from './driftKeys.ts'
import { bedGround } from './schemeDraft.ts'

const ground = answerTo(reworkEndpoints.ground)
const place = placesOn(answerTo(gardenEndpoints.read).features, today).find((p) => p.id === ground.placeId)!
const bed = bedGround(place, ground, [180], [])
const taxon = library.find((t) => t.botanical === 'Nepeta × faassenii')!
const arranged = ['a', 'b', 'c'].reduce<Arrangement>(
  (to, id) => withDrift(bed, to, { id, taxon, count: 4 }),
  unarranged(bed, []),
)
const press = (
  key: string,
  chosen: string | undefined,
  more: { shift?: boolean; canChange?: boolean } = {},
) => keyedDrift(bed, arranged, chosen, { key, shift: false, canChange: true, ...more })
const counts = (done: ReturnType<typeof press>) =>
  done && 'arranged' in done ? done.arranged.drifts.map((d) => d.count) : undefined

describe('drifts by keys', () => {
  it('are taken one after another, round and round, and let go of', () => {
    expect([undefined, 'a', 'c'].map((from) => press('.', from))).toEqual(
      ['a', 'b', 'a'].map((chosen) => ({ chosen })),
    )
    expect([undefined, 'a', 'c'].map((from) => press(',', from))).toEqual(
      ['c', 'c', 'b'].map((chosen) => ({ chosen })),
    )
    expect(press('Escape', 'b')).toEqual({ chosen: undefined })
    expect(press('Escape', undefined)).toBeUndefined()
  })

  it('are counted, split, taken out, and never become none by counting', () => {
    expect(counts(press('+', 'b'))).toEqual([4, 5, 4])
    expect(counts(press('-', 'b'))).toEqual([4, 3, 4])
    expect(counts(press('s', 'b'))).toEqual([4, 2, 4, 2])
    expect(counts(press('Delete', 'b'))).toEqual([4, 4])
    const one = { ...arranged, drifts: arranged.drifts.map((d) => ({ ...d, count: 1 })) }
    expect(keyedDrift(bed, one, 'a', { key: '-', shift: false, canChange: true })).toBeUndefined()
  })

  it('are moved by a cell, or by a metre, and not at all by who only looks', () => {
    const middleX = (done: ReturnType<typeof press>) => {
      const at = done && 'arranged' in done ? done.arranged : arranged
      const own = bed.of.stations.filter((_, c) => at.has[c] === 1)
      return own.reduce((sum, s) => sum + s.x, 0) / own.length
    }
    const before = middleX(undefined)
    const [little, far] = [press('ArrowRight', 'b'), press('ArrowRight', 'b', { shift: true })]
    expect(middleX(little)).toBeGreaterThan(before)
    expect(middleX(far)).toBeGreaterThan(middleX(little))
    for (const key of ['ArrowRight', '+', '-', 's', 'Delete'])
      expect(press(key, 'b', { canChange: false })).toBeUndefined()
    expect(press('.', 'b', { canChange: false })).toEqual({ chosen: 'c' })
  })
})
