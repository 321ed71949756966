import type { PictureView } from '@border/contract'
import type { Laying } from '@border/core'
import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { look } from './asked.ts'
import { practiceWithGarden, shortRecord, type TestPractice } from './practice.ts'

let practice: TestPractice
let path: string
beforeAll(async () => {
  practice = await practiceWithGarden(shortRecord, () => Date.parse('2026-09-15T10:00:00Z'))
  path = `/gardens/${practice.gardenId}/plan/pictures`
})
afterAll(() => practice.stop())

const scan = (background: string, width = 60, height = 40) =>
  sharp({ create: { width, height, channels: 4, background } })
    .png()
    .toBuffer()
const pictures = () => look<PictureView[]>(practice, '/plan/pictures')
const add = (said: object, file: Buffer) => practice.head.post(path, said, { file })
const added = async (background: string) => {
  const id = randomUUID()
  const { status, body } = await add({ id, name: `The old plan, ${background}` }, await scan(background))
  expect([status, body]).toEqual([200, { pictureId: id }])
  return id
}
const amend = (id: string, change: object, seen?: PictureView) =>
  practice.head.post(`${path}/${id}/amend`, { ...change, ...(seen && { seen }) })

const byTwo: Laying = {
  how: 'two points',
  a: { px: [10, 30], at: [2, 3] },
  b: [50, 30],
  lengthM: 8,
  turnDeg: 15,
}

describe('a picture under the plan', () => {
  it('stays with the garden: with its points, how strongly it shows, and its file on white paper', async () => {
    const id = await added('#ff000000')
    expect((await amend(id, { laying: byTwo, strength: 0.3 })).status).toBe(200)
    const [kept] = (await pictures()).filter((p) => p.id === id)
    expect(kept).toMatchObject({ laying: byTwo, strength: 0.3, isShown: true, width: 60, height: 40 })
    const file = await practice.head.get(`${path}/${id}/file`).responseType('blob')
    const { channels } = await sharp(Buffer.from(file.body)).stats()
    expect(channels.map((c) => Math.round(c.mean))).toEqual([255, 255, 255])
  })

  it('is kept once, however often it is sent, and brought back where it was taken away', async () => {
    const id = await added('#00ff00')
    const again = await add({ id: randomUUID(), name: 'The same' }, await scan('#00ff00'))
    expect(again.body).toEqual({ pictureId: id })
    const before = await pictures()
    await practice.head.post(`${path}/${id}/withdraw`)
    expect((await pictures()).map((p) => p.id)).not.toContain(id)
    expect((await practice.head.post(`${path}/${id}/withdraw`)).status).toBe(404)
    expect((await practice.head.get(`${path}/${id}/file`)).status).toBe(404)
    await practice.head.post(`${path}/${id}/restore`)
    expect(await pictures()).toEqual(before)
    // Taken away and added anew, the old one cannot stand beside it.
    await practice.head.post(`${path}/${id}/withdraw`)
    const anew = await add({ id: randomUUID(), name: 'Anew' }, await scan('#00ff00'))
    expect(anew.body.pictureId).not.toBe(id)
    expect((await practice.head.post(`${path}/${id}/restore`)).status).toBe(409)
    // Under the id of what is gone nothing else is kept, and nobody is told that it was.
    expect((await add({ id, name: 'Another' }, await scan('#123456'))).status).toBe(409)
  })

  it('that cannot lie as it is said is told why, and nothing is changed', async () => {
    const id = await added('#0000ff')
    await amend(id, { laying: byTwo })
    const before = await pictures()
    const ties = [0, 1, 2, 3].map((i) => ({ px: [10 * i, 5], at: [i, 1] }))
    const bad: readonly [object, RegExp][] = [
      [{ laying: { how: 'points on the plan', ties } }, /lie on a line.*Nothing was changed/],
      [{ laying: { ...byTwo, b: byTwo.a.px } }, /two points are one/],
      [{ laying: { ...byTwo, lengthM: 0 } }, /lengthM/],
      [{ laying: { ...byTwo, b: [50, 1e9] } }, /b/],
      [
        {
          laying: {
            how: 'tapes between points',
            marks: [[0, 0]],
            tapes: [{ from: 0, to: 3, metres: 2 }],
            at: [0, 0],
            bearingDeg: 0,
          },
        },
        /go between points that are marked/,
      ],
      [{ strength: 0 }, /strength/],
    ]
    for (const [change, why] of bad) {
      const { status, body } = await amend(id, change)
      expect([status, JSON.stringify(body)]).toEqual([422, expect.stringMatching(why)])
    }
    expect(await pictures()).toEqual(before)
  })

  it('that somebody else has laid otherwise meanwhile is not laid over that', async () => {
    const id = await added('#00ffff')
    const [seen] = (await pictures()).filter((p) => p.id === id)
    const other = await practice.join('second-head', 'head')
    const theirs = await other.post(`${path}/${id}/amend`, { laying: byTwo, seen })
    expect(theirs.status).toBe(200)
    const { status, body } = await amend(id, { laying: null }, seen)
    expect([status, body.meanwhile.says]).toEqual([409, ['The picture is laid otherwise.']])
  })

  it('of 200 million points is refused by its first bytes, and what is none too', async () => {
    const before = await pictures()
    const huge = await scan('#ffffff', 20_000, 10_000)
    const refused = await add({ id: randomUUID(), name: 'Huge' }, huge)
    expect([refused.status, refused.body.error]).toEqual([
      422,
      expect.stringMatching(/20000 by 10000 points.*60 million/),
    ])
    const none = await add({ id: randomUUID(), name: 'None' }, Buffer.from('%PDF-1.7 and so on'))
    expect([none.status, none.body.error]).toEqual([422, expect.stringMatching(/not a picture/)])
    expect(await pictures()).toEqual(before)
  })

  it('is seen by who belongs to the garden, and changed by who leads it', async () => {
    const id = await added('#ffff00')
    const keeper = await practice.join('keeps', 'keeper')
    const stranger = await practice.join('passes-by', null)
    expect((await keeper.get(`${path}/${id}/file`)).status).toBe(200)
    expect((await keeper.post(`${path}/${id}/amend`, { isShown: false })).status).toBe(403)
    expect((await stranger.get(`${path}/${id}/file`)).status).toBe(404)
  })
})
