import { walkEndpoints, type WalkView } from '@border/contract'
import { beforeEach, describe, expect, it } from 'vitest'
import { answerTo } from '../test/server.ts'
import { atTheGate, standingAt, walkReducer, type WalkAction, type WalkState } from './walkState.ts'

let places: WalkView['places']
beforeEach(() => {
  places = answerTo(walkEndpoints.read).places.filter((p) => p.plantings.length > 1)
})
const after = (...actions: WalkAction[]): WalkState => actions.reduce(walkReducer, atTheGate)

describe('where one stands on a walk', () => {
  it('is the first planting of the first place, before anything was gone to', () => {
    const { place, planting, before, next } = standingAt(atTheGate, places)
    expect([place, planting, before, next]).toEqual([
      places[0],
      places[0]!.plantings[0],
      undefined,
      places[1],
    ])
  })

  it('is the first planting of each place gone to, with nothing open from the place before', () => {
    const opened = { do: 'open', plantingId: places[0]!.plantings[1]!.id, opens: true } as const
    for (const [i, place] of places.entries()) {
      const state = after(opened, { do: 'go', placeId: place.id })
      expect(state.openId).toBeUndefined()
      expect(standingAt(state, places)).toEqual({
        place,
        planting: place.plantings[0],
        before: places[i - 1],
        next: places[i + 1],
      })
    }
  })

  it('stays with its place and planting when others are drawn, come or go in between', () => {
    const [, second] = places
    const planting = second!.plantings[1]!
    const state = after({ do: 'go', placeId: second!.id }, { do: 'stand at', plantingId: planting.id })
    for (const now of [[...places].reverse(), places.slice(1), [second!, ...places]]) {
      const standing = standingAt(state, now)
      expect([standing.place, standing.planting]).toEqual([second, planting])
    }
  })

  it('is somewhere as long as there is anywhere: of what is gone, its neighbour', () => {
    const [first, second] = places
    const state = after(
      { do: 'go', placeId: second!.id },
      { do: 'stand at', plantingId: second!.plantings[1]!.id },
    )
    expect(standingAt(state, [first!]).place).toEqual(first)
    const thinned = { ...second!, plantings: second!.plantings.slice(0, 1) }
    expect(standingAt(state, [thinned]).planting).toEqual(thinned.plantings[0])
    expect(standingAt(state, [{ ...second!, plantings: [] }]).planting).toBeUndefined()
  })

  it('is where a planting was closed, which opens and closes by the same touch', () => {
    const { id } = places[0]!.plantings[1]!
    const open = after({ do: 'open', plantingId: id, opens: true })
    expect([open.openId, open.plantingId]).toEqual([id, id])
    const closed = walkReducer(open, { do: 'open', plantingId: id, opens: false })
    expect([closed.openId, closed.plantingId]).toEqual([undefined, id])
  })

  it('is kept while the walk is ended and gone on with', () => {
    const state = after({ do: 'go', placeId: places[1]!.id }, { do: 'keep position', keeps: true })
    expect(walkReducer(walkReducer(state, { do: 'end' }), { do: 'walk on' })).toEqual(state)
  })
})
