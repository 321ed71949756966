import type { BenchView, EditView, FeatureView, GardenView, PlantingView, Removed } from '@border/contract'
import { addDays, asDrawnOn, centroid, isInside, ringOf, type Point } from '@border/core'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { look, write } from './asked.ts'
import { amending, drawing, entering, takingOff } from './edits.ts'
import { practiceWithGarden, shortRecord, type TestPractice } from './practice.ts'

const TODAY = '2026-09-15'
let practice: TestPractice

beforeAll(async () => {
  practice = await practiceWithGarden(shortRecord, () => Date.parse(`${TODAY}T10:00:00Z`))
})
afterAll(() => practice.stop())

const view = (on?: string) => look<GardenView>(practice, on ? `?on=${on}` : '')
const named = async (name: string): Promise<FeatureView> =>
  (await view()).features.find((f) => f.name === name)!
const planting = async (tag: string): Promise<PlantingView> =>
  (await view()).plantings.find((p) => p.tag === tag)!
const post = (rest: string, body: object = {}) =>
  practice.head.post(`/gardens/${practice.gardenId}${rest}`, body)
const sent = ({ kind, name, geometry, properties, from, to }: FeatureView, more: object = {}) => ({
  feature: { type: 'Feature', geometry, properties: { ...properties, kind, name, from, to, ...more } },
})
const edit = (body: object) => write<{ editId: string | null }>(practice, '/plan/edits', body)
const undo = (editId: string | null) => write<{ editId: string }>(practice, `/plan/edits/${editId}/undo`)

/** A bed with its outline drawn in about its middle. */
const narrower = (bed: FeatureView, share: number): FeatureView => {
  const ring = ringOf(bed.geometry)
  const [cx, cy] = centroid(ring)
  const small = ring.map(([x, y]): [number, number] => [cx + (x - cx) * share, cy + (y - cy) * share])
  return { ...bed, geometry: { type: 'Polygon', coordinates: [[...small, small[0]!]] } }
}

describe('an edit of the plan', () => {
  it('is told with who and when, taken back to the letter, and that again', async () => {
    const was = await named('North bed')
    const { editId } = await edit(drawing(sent(was, { name: 'Shady bed', moisture: 'wet' }), was.id))
    expect(await named('Shady bed')).toMatchObject({ id: was.id, properties: { moisture: 'wet' } })
    const [told] = await look<EditView[]>(practice, '/plan/edits')
    expect(told).toMatchObject({ id: editId, from: null, canUndo: true, isUndone: false })
    expect(told!.says[0]).toMatch(/^North bed: called Shady bed; it was North bed/)
    expect(told!.by).toBeTruthy()
    const back = await undo(editId)
    expect(await named('North bed')).toEqual(was)
    await undo(back.editId)
    const again = await named('Shady bed')
    expect(again.properties.moisture).toBe('wet')
    // Each can be taken back once; the one before it no more.
    expect((await post(`/plan/edits/${editId}/undo`)).status).toBe(409)
    await edit(drawing(sent(again, { name: 'North bed', moisture: was.properties.moisture }), was.id))
  })

  it('of what happened to a tree is told, taken back and done again like any other', async () => {
    const pear = async () => (await named('Pear')).properties.events as { action: string; date: string }[]
    const before = (await pear()) ?? []
    const { id } = await named('Pear')
    const event = { date: '2026-03-02', action: 'limbed', clearStemM: 1.8 }
    const { editId } = await write<{ editId: string }>(practice, `/features/${id}/events`, event)
    expect(await pear()).toHaveLength(before.length + 1)
    const [told] = await look<EditView[]>(practice, '/plan/edits')
    expect(told).toMatchObject({ id: editId, from: '2026-03-02', canUndo: true })
    expect(told!.says).toEqual(['Pear: limbed up to 1.8 m on 2 March 2026.'])
    const back = await undo(editId)
    expect((await pear()) ?? []).toEqual(before)
    expect((await look<EditView[]>(practice, '/plan/edits'))[0]!.says[0]).toMatch(/, taken back\.$/)
    const again = await undo(back.editId)
    expect(await pear()).toHaveLength(before.length + 1)
    // Taken back on its own panel it is under Changes too.
    const other = await write<{ editId: string }>(practice, `/features/${id}/events/undo`)
    expect((await pear()) ?? []).toEqual(before)
    expect((await post(`/plan/edits/${again.editId}/undo`)).status).toBe(409)
    await undo(other.editId)
    await undo(again.editId)
    expect((await pear()) ?? []).toEqual(before)
  })

  it('that plants something off the bench, taken back, puts it on the bench again', async () => {
    const bench = () => look<BenchView[]>(practice, '/bench')
    await write(practice, '/bench', {
      taxonBotanical: 'Hosta sieboldiana',
      count: 5,
      since: addDays(TODAY, -30),
    })
    const before = await bench()
    const [item] = before
    const bed = await named('North bed')
    const planted = entering({
      tag: 'B-1',
      taxonBotanical: item!.botanical,
      placeId: bed.id,
      count: 3,
      plantedOn: addDays(TODAY, -2),
      source: 'division',
      x: 9,
      y: 22.6,
      benchId: item!.id,
    })
    const { editId } = await write<{ editId: string }>(practice, '/plantings', planted)
    expect((await bench()).map((b) => b.count)).toEqual([2])
    const back = await undo(editId)
    expect(await bench()).toEqual(before)
    await undo(back.editId)
    expect((await bench()).map((b) => b.count)).toEqual([2])
    // What is left has gone meanwhile: then it cannot be taken back any more.
    const [left] = await bench()
    await write(practice, `/bench/${left!.id}/gone`, { on: TODAY, gone: 'given away' })
    const latest = (await look<EditView[]>(practice, '/plan/edits'))[0]!
    const refused = await post(`/plan/edits/${latest.id}/undo`)
    expect([refused.status, refused.body.error]).toEqual([409, expect.stringMatching(/changed since/)])
    expect(await bench()).toEqual([])
  })

  it('that something was changed after is not taken back over it', async () => {
    const was = await named('North bed')
    const first = await edit(drawing(sent(was, { ph: 6.1 }), was.id))
    const second = await edit(drawing(sent(await named('North bed'), { ph: 6.4 }), was.id))
    const refused = await post(`/plan/edits/${first.editId}/undo`)
    expect([refused.status, refused.body.error]).toEqual([
      409,
      expect.stringMatching(/^North bed has been changed since/),
    ])
    await undo(second.editId)
    await undo(first.editId)
    expect(await named('North bed')).toEqual(was)
  })

  it('leaves no plant outside: it is refused with their tags, until it is said where they stand', async () => {
    const bed = await named('North bed')
    const small = narrower(bed, 0.15)
    const refused = await post('/plan/edits', drawing(sent(small), bed.id))
    expect([refused.status, refused.body.error]).toEqual([
      422,
      expect.stringMatching(/^W-.* would stand outside North bed: say where they stand\.$/),
    ])
    expect(await named('North bed')).toEqual(bed)
    const here = (await view()).plantings.filter((p) => p.placeId === bed.id)
    const [x, y] = centroid(ringOf(small.geometry))
    const settled = here.map((p) => ({ plantingId: p.id, placeId: bed.id, x, y }))
    const { editId } = await edit({ ...drawing(sent(small), bed.id), settled })
    expect((await planting(here[0]!.tag)).x).toBeCloseTo(x, 6)
    await undo(editId)
    for (const p of here) expect(await planting(p.tag)).toEqual(p)
  })

  it('takes what grows in a bed along when it is moved whole, in the past as well', async () => {
    const bed = await named('Court border')
    const by = [1, 0, 0, 1, 2, -1]
    const moved: FeatureView = {
      ...bed,
      geometry: {
        type: 'Polygon',
        coordinates: [
          (bed.geometry as unknown as { coordinates: [number, number][][] }).coordinates[0]!.map(
            ([x, y]): [number, number] => [x + 2, y - 1],
          ),
        ],
      },
    }
    const before = (await view(addDays(TODAY, -300))).plantings.filter((p) => p.placeId === bed.id)
    const { editId } = await edit({ ...drawing(sent(moved), bed.id), carried: [{ placeId: bed.id, by }] })
    const after = (await view(addDays(TODAY, -300))).plantings.filter((p) => p.placeId === bed.id)
    expect(after.map((p) => [p.tag, p.x, p.y])).toEqual(before.map((p) => [p.tag, p.x + 2, p.y - 1]))
    await undo(editId)
  })

  it('that happened on a day leaves a bed as it was until then; a wall ends, and stands anew', async () => {
    const bed = await named('North bed')
    const day = addDays(TODAY, -40)
    const wider = narrower(bed, 1.1)
    const { editId } = await edit({ ...drawing(sent(wider), bed.id), from: day })
    const now = await named('North bed')
    expect(asDrawnOn(now, addDays(day, -1)).geometry).toEqual(bed.geometry)
    expect(asDrawnOn(now, day).geometry).toEqual(wider.geometry)
    await undo(editId)
    const wall = (await view()).features.find((f) => f.kind === 'wall')!
    const line = (wall.geometry as unknown as { coordinates: [number, number][] }).coordinates
    const shorter: FeatureView = {
      ...wall,
      geometry: { type: 'LineString', coordinates: line.map(([x, y]): [number, number] => [x + 0.5, y]) },
    }
    const put = await edit({ ...drawing(sent(shorter), wall.id), from: day })
    const walls = (await view()).features.filter((f) => f.name === wall.name)
    expect(walls.map((f) => [f.from, f.to])).toEqual([
      [wall.from, day],
      [day, null],
    ])
    await undo(put.editId)
    expect((await view()).features.filter((f) => f.name === wall.name)).toEqual([wall])
  })

  it('cuts a bed in two, each plant in the part it lies in, and is one edit to take back', async () => {
    const bed = await named('North bed')
    const ring = ringOf(bed.geometry)
    const xs = ring.map((p) => p[0])
    const [left, right] = [Math.min(...xs), Math.max(...xs)]
    const middle = (left + right) / 2
    const half = (from: number, to: number): Point[] => {
      const ys = ring.map((p) => p[1])
      const [low, high] = [Math.min(...ys) - 1, Math.max(...ys) + 1]
      return [
        [from, low],
        [to, low],
        [to, high],
        [from, high],
      ]
    }
    const as = (corners: Point[], name: string) =>
      sent(
        {
          ...bed,
          geometry: { type: 'Polygon', coordinates: [[...corners, corners[0]!].map(([x, y]) => [x, y])] },
        },
        { name },
      ).feature
    const second = randomUUID()
    const here = (await view()).plantings.filter((p) => p.placeId === bed.id)
    const { editId } = await edit({
      parts: [
        { id: bed.id, feature: as(half(left - 1, middle), 'North bed') },
        { id: second, feature: as(half(middle, right + 1), 'North bed, second part') },
      ],
      rehomed: [{ from: bed.id, to: second }],
    })
    const now = (await view()).plantings.filter((p) => here.some((h) => h.id === p.id))
    for (const p of now) {
      const place = (await view()).features.find((f) => f.id === p.placeId)!
      expect(isInside(ringOf(place.geometry), p.x, p.y)).toBe(true)
    }
    expect(new Set(now.map((p) => p.placeId)).size).toBe(2)
    await undo(editId)
    expect((await view()).plantings.filter((p) => p.placeId === bed.id)).toEqual(here)
    expect(await named('North bed, second part')).toBeUndefined()
  })

  it('takes a bed off with its plants, and both are found again', async () => {
    const bed = await named('North bed')
    const here = (await view()).plantings.filter((p) => p.placeId === bed.id)
    const { editId } = await edit({ ...takingOff(bed.id), withdrawn: here.map((p) => p.id) })
    expect((await view()).plantings.filter((p) => p.placeId === bed.id)).toEqual([])
    const removed = await look<Removed>(practice, '/plan/removed')
    expect(removed.parts.map((p) => p.name)).toContain('North bed')
    expect(removed.plantings.map((p) => p.tag).sort()).toEqual(
      expect.arrayContaining(here.map((p) => p.tag).sort()),
    )
    await undo(editId)
    expect((await view()).plantings.filter((p) => p.placeId === bed.id)).toEqual(here)
  })
})

describe('plantings put right together', () => {
  it('swap their tags, and one that cannot be so leaves all as they were', async () => {
    const [a, b] = [await planting('W-02'), await planting('W-03')]
    const both = {
      plantings: [amending(a.id, { tag: 'W-03' }), amending(b.id, { tag: 'W-02' })].flatMap(
        (x) => x.plantings,
      ),
    }
    const { editId } = await write<{ editId: string }>(practice, '/plantings/amend', both)
    expect([(await planting('W-03')).id, (await planting('W-02')).id]).toEqual([a.id, b.id])
    await undo(editId)
    const wrong = {
      plantings: [
        ...amending(a.id, { count: 12 }).plantings,
        ...amending(b.id, { tag: 'W-77', plantedOn: addDays(TODAY, 3) }).plantings,
      ],
    }
    const refused = await post('/plantings/amend', wrong)
    expect([refused.status, refused.body.error]).toEqual([422, 'W-77: The planting date lies ahead.'])
    expect(await planting('W-02')).toEqual(a)
  })

  it('keep a day that nobody knows as one to reckon with, in their story as well', async () => {
    const was = await planting('W-05')
    const { editId } = await write<{ editId: string }>(
      practice,
      '/plantings/amend',
      amending(was.id, { plantedOn: '2015-01-01', plantedKnown: 'before' }),
    )
    expect(await planting('W-05')).toMatchObject({
      plantedOn: '2015-01-01',
      plantedKnown: 'before',
      inPlaceSince: '2015-01-01',
    })
    expect((await look<EditView[]>(practice, '/plan/edits'))[0]!.says).toEqual(['W-05: planted before 2015.'])
    await undo(editId)
    expect(await planting('W-05')).toEqual(was)
  })
})
