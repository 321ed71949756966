import type { FeatureView, PlantingView } from '@border/contract'
import { areaM2, readyShape, ringOf, shift, turn, withHandleAt, type PlanFeature } from '@border/core'
import { describe, expect, it } from 'vitest'
import {
  allParts,
  begun,
  carriedWhole,
  couldHappen,
  draftOf,
  drawnAs,
  drawnNow,
  editOf,
  goneWith,
  inHand,
  isChanged,
  joinDraft,
  madeAlike,
  newDraft,
  restepped,
  saidAs,
  setInside,
  settledIn,
  splitDraft,
  standingAt,
  stepped,
  straysOf,
  unstepped,
} from './draft.ts'

const bed = (id: string, x0: number, x1: number): FeatureView => ({
  id,
  kind: 'bed',
  name: id,
  from: null,
  to: null,
  geometry: {
    type: 'Polygon',
    coordinates: [
      [
        [x0, 0],
        [x1, 0],
        [x1, 3],
        [x0, 3],
        [x0, 0],
      ],
    ],
  },
  properties: { moisture: 'fresh' },
})
const planting = (id: string, placeId: string, x: number, y: number) =>
  ({ id, tag: id, placeId, x, y, taxon: { botanical: id } }) as unknown as PlantingView
const areaOf = (f: PlanFeature | null) => areaM2(ringOf(f!.geometry))

describe('a part in hand', () => {
  it('is unchanged until something of it is otherwise, and unchanged again when that is', () => {
    const draft = draftOf(bed('A', 0, 4))
    expect(isChanged(draft)).toBe(false)
    const moved = carriedWhole(draft, shift([1, 0]))
    expect([isChanged(moved), couldHappen(moved)]).toEqual([true, true])
    expect(isChanged(carriedWhole(moved, shift([-1, 0])))).toBe(false)
    const renamed = saidAs(draft, { name: 'B' })
    expect([isChanged(renamed), couldHappen(renamed)]).toEqual([true, false])
  })

  it('takes what grows in it along when it is moved whole, and leaves it when a corner is', () => {
    const grows = planting('P', 'A', 1, 1)
    const turned = carriedWhole(draftOf(bed('A', 0, 4)), turn([0, 0], 90))
    const at = settledIn(turned, grows)
    expect([at.x, at.y].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([1, -1])
    expect(straysOf(turned, [grows])).toEqual([])
    expect(editOf(turned).carried).toHaveLength(1)
    const draft = draftOf(bed('A', 0, 4))
    const drawn = drawnNow(draft)!
    const cut = drawnAs(draft, { ...drawn, handles: withHandleAt(drawn.handles, 0, { x: 2, y: 2 }) })
    expect(editOf(cut).carried).toEqual([])
  })

  it('shows the plants that its outline would leave outside, and where they would stand inside', () => {
    const draft = draftOf(bed('A', 0, 4))
    const narrow = drawnAs(draft, { handles: readyShape('rectangle', [1, 1.5], 2, 3), closed: true })
    const outside = [planting('in', 'A', 1, 1), planting('out', 'A', 3, 1), planting('else', 'B', 9, 9)]
    const strays = straysOf(narrow, outside)
    expect(strays.map((s) => s.planting.id)).toEqual(['out'])
    const settled = setInside(narrow, strays)
    expect(straysOf(settled, outside)).toEqual([])
    expect(editOf(settled, '2026-01-02')).toMatchObject({
      from: '2026-01-02',
      settled: [{ plantingId: 'out', placeId: 'A' }],
    })
  })
})

describe('cutting and joining beds', () => {
  it('leaves all its ground in two, each planting in the part that it lies in', () => {
    const draft = draftOf(bed('A', 0, 4))
    const drawn = drawnNow(draft)!
    const more = drawnAs(draft, {
      ...drawn,
      handles: [
        ...drawn.handles.slice(0, 1),
        { x: 2, y: 0, curved: false },
        ...drawn.handles.slice(1, 3),
        { x: 2, y: 3, curved: false },
        ...drawn.handles.slice(3),
      ],
    })
    const made = splitDraft(more, 1, 4, 'new', 'A, second part')
    if (!made.ok) throw new Error(made.says)
    expect(made.draft.parts.map((p) => areaOf(p.now))).toEqual([6, 6])
    expect(editOf(made.draft)).toMatchObject({ rehomed: [{ from: 'A', to: 'new' }] })
    expect(straysOf(made.draft, [planting('l', 'A', 1, 1), planting('r', 'A', 3, 1)])).toEqual([])
  })

  it('makes one of two that touch, and says why not of two that do not', () => {
    const made = joinDraft(draftOf(bed('A', 0, 4)), bed('B', 4, 6))
    if (!made.ok) throw new Error(made.says)
    expect(areaOf(inHand(made.draft).now)).toBeCloseTo(18, 6)
    expect(editOf(made.draft).parts[1]).toEqual({ id: 'B', feature: null })
    expect(joinDraft(draftOf(bed('A', 0, 4)), bed('B', 7, 9))).toMatchObject({ ok: false })
  })
})

describe('what is new', () => {
  it('stands where it is put, with the sizes its kind usually has', () => {
    const tree = standingAt(newDraft('t', 'tree'), [3.00049, 4])
    expect(inHand(tree).now).toMatchObject({
      geometry: { type: 'Point', coordinates: [3, 4] },
      properties: { heightM: 6, transmissionInLeaf: 0.15 },
    })
    // It was nowhere before: nothing goes along with it.
    expect(editOf(tree).carried).toEqual([])
  })
})

describe('steps', () => {
  it('are taken back and done again, typing as one, and a new one ends what could be done again', () => {
    const first = begun(draftOf(bed('A', 0, 4)))
    const typed = ['L', 'Lo', 'Lon'].reduce(
      (d, name, i) => stepped(d, saidAs(d.draft, { name }), i > 0),
      first,
    )
    expect(inHand(typed.draft).now!.name).toBe('Lon')
    const back = unstepped(typed)!
    expect(inHand(back.draft).now!.name).toBe('A')
    expect(unstepped(back)).toBeUndefined()
    expect(inHand(restepped(back)!.draft).now!.name).toBe('Lon')
    expect(restepped(stepped(back, goneWith(back.draft, [])))).toBeUndefined()
  })
})

describe('containers alike', () => {
  const pot = saidAs(standingAt(newDraft('p', 'container'), [3, 4]), { name: 'Step pot' })

  it('stand in a row, numbered on from those that are there, and are sent together', () => {
    const five = madeAlike(pot, 5, ['Step pot 2', 'Step pot', 'Step pot 7b'], 0.7)
    const parts = editOf(five).parts.map(
      (p) => p.feature as { properties: { name: string }; geometry: { coordinates: number[] } },
    )
    expect(parts.map((f) => f.properties.name)).toEqual([3, 4, 5, 6, 7].map((n) => `Step pot ${n}`))
    parts.forEach((f, i) => {
      expect(f.geometry.coordinates[0]).toBeCloseTo(3 + 0.7 * i, 3)
      expect(f.geometry.coordinates[1]).toBeCloseTo(4, 3)
    })
    expect(new Set(editOf(five).parts.map((p) => p.id)).size).toBe(5)
  })

  it('run the way they are told to, keep their ids when more are wanted, and are one again as before', () => {
    const two = madeAlike(pot, 2, [], 1)
    const north = { ...two, alike: { ...two.alike!, towardsDeg: 0 } }
    expect(allParts(north)[1]!.now!.geometry).toEqual({ type: 'Point', coordinates: [3, 5] })
    const three = madeAlike(north, 3, [], 9)
    expect(allParts(three).slice(0, 2)).toEqual(allParts(north))
    expect(editOf(madeAlike(three, 1, [], 1))).toEqual(editOf(pot))
    // Nothing is numbered before it stands anywhere.
    expect(allParts(madeAlike(saidAs(newDraft('p', 'container'), { name: 'x' }), 3, [], 1))).toHaveLength(1)
  })
})
