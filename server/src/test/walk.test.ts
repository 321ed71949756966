import type { BloomView, DiagnosisView, GardenView, RecordView, WalkEntry, WalkView } from '@border/contract'
import { seasonYearOf } from '@border/core'
import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { seasonsLooked, signsLastSeen } from '../store/observations.ts'
import { practiceWithGarden, type Client, type TestPractice } from './practice.ts'

let practice: TestPractice
let crew: Client
let view: GardenView
let garden: string

beforeAll(async () => {
  practice = await practiceWithGarden()
  garden = `/gardens/${practice.gardenId}`
  crew = await practice.join('crew', 'crew')
  view = (await practice.head.get(garden)).body
})
afterAll(() => practice.stop())

const look = (plantingId: string, more: Partial<WalkEntry> = {}) => ({
  kind: 'planting' as const,
  id: randomUUID(),
  plantingId,
  on: '2026-06-10',
  at: '2026-06-10T09:00:00Z',
  rating: 4,
  ...more,
})
const send = async (client: Client, entries: unknown[]) =>
  (await client.post(`${garden}/walk-entries`, { entries })).body
const rows = async (table: string) => Number((await practice.db(table).count('* as n').first())!.n)
const standing = () => practice.db('observations').whereNull('withdrawn_at')

describe('a walk', () => {
  it('lists every planting once, places in an order to walk, with what is usual and what signs to look for', async () => {
    const walk: WalkView = (await crew.get(`${garden}/walk`)).body
    const ids = walk.places.flatMap((p) => p.plantings.map((x) => x.id))
    expect(new Set(ids)).toEqual(new Set(view.plantings.map((p) => p.id)))
    expect(ids).toHaveLength(view.plantings.length)
    for (const p of walk.places.flatMap((x) => x.plantings)) {
      expect(p.usual.length).toBeGreaterThan(3)
      expect(p.likely.length).toBeGreaterThan(15)
    }
  })

  it('keeps what it was sent once, however often it is sent and in whatever company', async () => {
    const [a, b] = view.plantings.map((p) => look(p.id))
    expect(await send(crew, [a])).toEqual({ kept: [a!.id], refused: [] })
    expect(await send(crew, [b, a])).toMatchObject({ refused: [] })
    const same = Array.from({ length: 6 }, () => send(crew, [a, b]))
    for (const answer of await Promise.all(same)) expect(answer.kept).toHaveLength(2)
    expect(await rows('observations')).toBe(2)
  })

  it('knows the seasons that were looked at without reading every look, north and south', async () => {
    const days = ['2024-06-30', '2024-07-01', '2024-12-31', '2025-01-01', '2025-08-31', '2026-06-10']
    const added = days.map((on) => look(view.plantings[1]!.id, { on }))
    const { kept, refused } = await send(crew, added)
    expect(refused).toEqual([])
    const looked = await standing().select<{ on: string }[]>('on_date as on')
    for (const south of [false, true]) {
      const seasons = await seasonsLooked(practice.db, practice.gardenId, south)
      expect(seasons.sort()).toEqual([...new Set(looked.map(({ on }) => seasonYearOf(on, south)))].sort())
    }
    await standing().whereIn('id', kept).delete()
  })

  it('knows when each sign was last seen within a time, of what was not taken back', async () => {
    const plantingId = view.plantings[1]!.id
    const seen = (on: string, ...signs: string[]) => look(plantingId, { on, signs } as Partial<WalkEntry>)
    const { kept } = await send(crew, [
      seen('2026-03-01', 'wilting'),
      seen('2026-05-01', 'wilting', 'chewed'),
      seen('2026-06-01', 'chewed'),
      seen('2026-06-09', 'wilting'),
    ])
    await standing().where({ id: kept[3] }).update({ withdrawn_at: new Date() })
    const found = async (from: string, to: string) =>
      (await signsLastSeen(practice.db, practice.gardenId, from, to))
        .filter((s) => s.plantingId === plantingId)
        .map(({ sign, on }) => [sign, on])
        .sort()
    expect(await found('2026-01-01', '2026-06-10')).toEqual([
      ['chewed', '2026-06-01'],
      ['wilting', '2026-05-01'],
    ])
    expect(await found('2026-01-01', '2026-04-01')).toEqual([['wilting', '2026-03-01']])
    await practice.db('observations').whereIn('id', kept).delete()
  })

  it('names what it cannot keep, with the reason, and keeps the rest', async () => {
    const before = await rows('observations')
    const good = look(view.plantings[2]!.id)
    const answer = await send(crew, [
      look(randomUUID()),
      { ...look(view.plantings[0]!.id), rating: 9 },
      { ...look(view.plantings[0]!.id), on: '2099-01-01' },
      { ...look(view.plantings[0]!.id), rating: undefined },
      { ...look(view.plantings[0]!.id), signs: ['sunstroke'] },
      { ...look(view.plantings[0]!.id), rating: undefined, absent: true, living: 3 },
      good,
      'nonsense',
    ])
    expect(answer.kept).toEqual([good.id])
    const why = answer.refused.map((r: { why: string }) => r.why)
    expect(why).toHaveLength(7)
    expect(why[0]).toMatch(/not in this garden/)
    expect(why[1]).toMatch(/rating/)
    expect(why[2]).toMatch(/lies ahead/)
    expect(why[3]).toMatch(/says nothing/)
    expect(why[4]).toMatch(/not a sign/)
    expect(why[5]).toMatch(/nothing shows/)
    expect(await rows('observations')).toBe(before + 1)
  })

  it('keeps both looks of two people at one planting, and lets each put right only their own', async () => {
    const planting = view.plantings[3]!
    const mine = look(planting.id, { rating: 2 })
    const theirs = look(planting.id, { rating: 4 })
    await send(crew, [mine])
    await send(practice.head, [theirs])
    expect(await standing().where({ planting_id: planting.id })).toHaveLength(2)
    await send(crew, [look(planting.id, { rating: 3, replacesId: mine.id })])
    await send(crew, [look(planting.id, { rating: 1, replacesId: theirs.id })])
    const left = await standing().where({ planting_id: planting.id }).orderBy('rating').pluck('rating')
    expect(left).toEqual([1, 3, 4])
  })

  it('puts right the last word that came into the record, whatever was lost on the way between', async () => {
    const planting = view.plantings[4]!
    const [first, lost, last] = [1, 2, 3].map((rating) => look(planting.id, { rating, on: '2026-05-30' }))
    await send(crew, [first])
    // The second never arrived: the device cannot know.
    await send(crew, [{ ...last, replacesId: lost!.id, orReplaces: [first!.id] }])
    const left = await standing().where({ planting_id: planting.id, on_date: '2026-05-30' }).pluck('rating')
    expect(left).toEqual([3])
  })

  it('counts the living from the latest look, and gives a planting up only when it is struck off', async () => {
    const planting = view.plantings.find((p) => p.plantedCount > 2)!
    await send(crew, [look(planting.id, { living: 2, on: '2026-06-12' })])
    const living = async () =>
      (await practice.head.get(garden)).body.plantings.find((p: { id: string }) => p.id === planting.id)
        ?.livingCount
    expect(await living()).toBe(2)
    await send(crew, [{ ...look(planting.id), rating: undefined, absent: true, on: '2026-06-14' }])
    expect(await living()).toBe(2)
    const off = `${garden}/plantings/${planting.id}/strike-off`
    expect((await crew.post(off, { on: '2026-07-01', note: 'Crowns gone soft.' })).status).toBe(200)
    expect(await living()).toBeUndefined()
    expect((await crew.post(off, { on: '2026-07-01' })).status).toBe(409)
    const { story } = (await crew.get(`${garden}/plantings/${planting.id}`)).body
    expect(story.at(-1)).toMatchObject({ kind: 'lost', says: 'Struck off: none living. Crowns gone soft.' })
    await crew.post(`${garden}/plantings/${planting.id}/found`, { on: '2026-07-20' })
    expect(await living()).toBe(1)
  })

  it('of a place is kept beside it', async () => {
    const bed = view.features.find((f) => f.kind === 'bed')!
    const entry = {
      kind: 'place',
      id: randomUUID(),
      placeId: bed.id,
      on: '2026-06-10',
      at: '2026-06-10T09:30:00Z',
      weeds: 'many',
      soil: 'dry',
      holesM: [0.5, 0.8],
      goodTogether: 'Sage against the wall.',
    }
    expect((await send(crew, [entry, entry])).kept).toEqual([entry.id, entry.id])
    const walk: WalkView = (await crew.get(`${garden}/walk`)).body
    expect(walk.places.find((p) => p.id === bed.id)!.last).toMatchObject({
      weeds: 'many',
      holesM: [0.5, 0.8],
      goodTogether: 'Sage against the wall.',
    })
  })

  it('judges each entry by itself, whatever is wrong with another', async () => {
    const planting = view.plantings[3]!
    const place = view.features.find((f) => f.kind === 'bed')!
    const placeLook = {
      kind: 'place',
      id: randomUUID(),
      placeId: place.id,
      on: '2026-06-11',
      at: '2026-06-11T09:00:00Z',
    }
    expect((await send(crew, [{ ...placeLook, soil: 'dry' }])).kept).toEqual([placeLook.id])
    const bad = {
      zeroByte: look(planting.id, { note: 'a\u0000b' }),
      nothingSeen: look(planting.id, { note: '\u200b' }),
      beforePlanting: look(planting.id, { on: '1999-06-10' }),
      longAgo: look(planting.id, { on: '1900-06-10' }),
      tooMany: look(planting.id, { living: 9000 }),
      noEntry: 'nothing of the kind',
      ofNothing: { ...placeLook, id: randomUUID(), placeId: { constructor: 1, toString: 'x' } },
    }
    const capitals = {
      ...look(planting.id),
      id: randomUUID().toUpperCase(),
      plantingId: planting.id.toUpperCase(),
    }
    // What it says it puts right is of a place, or of nobody: it stands for itself.
    const ofPlace = look(planting.id, { replacesId: placeLook.id })
    const ofNobody = look(planting.id, { replacesId: randomUUID(), orReplaces: [randomUUID()] })
    const answer = await send(crew, [...Object.values(bad), capitals, ofPlace, ofNobody])
    expect(answer.kept).toEqual([capitals.id, ofPlace.id, ofNobody.id])
    const whys = answer.refused.map((r: { why: string }) => r.why)
    expect(whys).toHaveLength(Object.keys(bad).length)
    const { tag } = planting
    expect(whys).toEqual([
      expect.stringMatching(new RegExp(`${tag}.*cannot be written`)),
      expect.stringMatching(new RegExp(`${tag}.*nothing that can be seen`)),
      expect.stringMatching(new RegExp(`${tag}.*was planted on`)),
      expect.stringMatching(new RegExp(`${tag}.*not lie before 1950`)),
      expect.stringMatching(new RegExp(`${tag}.*9000 living of`)),
      expect.any(String),
      expect.stringMatching(/^placeId: must be/),
    ])
    // Sent again, each is told by the name that the device has for it.
    expect((await send(crew, [capitals])).kept).toEqual([capitals.id])
    expect(await standing().where({ id: capitals.id.toLowerCase() })).toHaveLength(1)
  })
})

describe('photos', () => {
  /** Wide and red on the left, with orientation 6: turned a quarter clockwise to be seen upright. */
  const turned = async (exif: object) => {
    const left = await sharp({ create: { width: 40, height: 80, channels: 3, background: '#d02020' } })
      .png()
      .toBuffer()
    return sharp({ create: { width: 160, height: 80, channels: 3, background: '#2020d0' } })
      .composite([{ input: left, left: 0, top: 0 }])
      .withMetadata({ orientation: 6, exif: { IFD0: { Artist: 'Somebody' }, ...exif } })
      .jpeg()
      .toBuffer()
  }
  const gps = {
    IFD3: {
      GPSLatitudeRef: 'N',
      GPSLatitude: '52/1 6/1 0/1',
      GPSLongitudeRef: 'E',
      GPSLongitude: '1/1 18/1 0/1',
    },
  }
  const photo = (more: object = {}) => ({
    id: randomUUID(),
    on: '2026-06-10',
    at: '2026-06-10T09:00:00Z',
    plantingId: view.plantings[0]!.id,
    ...more,
  })
  const post = (said: object, file: Buffer, key?: string) =>
    crew.post(`${garden}/photos`, said, { file, ...(key && { key }) })
  const fetched = async (id: string, size = '') =>
    Buffer.from((await crew.get(`${garden}/photos/${id}${size}`).responseType('blob')).body)

  it('come back upright, small for lists, and without what the camera wrote in them', async () => {
    const sent = photo()
    expect((await post(sent, await turned(gps), sent.id)).body).toEqual({ added: true })
    const picture = await fetched(sent.id)
    const { width, height, exif } = await sharp(picture).metadata()
    expect([width, height, exif]).toEqual([80, 160, undefined])
    // A quarter turn clockwise brings the left side to the top.
    const corner = await sharp(picture).extract({ left: 30, top: 4, width: 20, height: 10 }).toBuffer()
    const top = await sharp(corner).stats()
    expect(top.channels[0]!.mean).toBeGreaterThan(top.channels[2]!.mean + 80)
    expect((await fetched(sent.id, '?size=small')).length).toBeLessThanOrEqual(picture.length)
    const kept = await practice.db('photos').where({ id: sent.id }).first('latitude', 'longitude')
    expect(kept).toEqual({ latitude: null, longitude: null })
  })

  it('are stored once, and keep where they were taken only when that is wanted', async () => {
    const file = await turned({ ...gps, IFD0: { Artist: 'Somebody else' } })
    const sent = photo({ keepPosition: true })
    await post(sent, file)
    expect((await post({ ...sent, id: randomUUID() }, file)).body).toEqual({ added: false })
    const kept = await practice.db('photos').where({ id: sent.id }).first('latitude', 'longitude')
    expect(kept.latitude).toBeCloseTo(52.1, 5)
    expect(kept.longitude).toBeCloseTo(1.3, 5)
  })

  it('are sent as a form of two parts: anything else is refused with a word, and keeps nothing', async () => {
    const file = await turned({ IFD0: { Artist: 'A third' } })
    const kept = () => practice.db('photos').pluck('id')
    const before = await kept()
    const form = () =>
      crew.agent
        .post(`/api${garden}/photos`)
        .set({ 'x-csrf-token': crew.token, 'idempotency-key': randomUUID() })
    const said = JSON.stringify(photo())
    const answers = await Promise.all([
      crew.post(`${garden}/photos`, photo()),
      form().field('said', said),
      form().attach('file', file, 'photo'),
      form().field('said', '{"id":').attach('file', file, 'photo'),
      form().field('said', '['.repeat(40)).attach('file', file, 'photo'),
      form().field('said', 'x'.repeat(30_000)).attach('file', file, 'photo'),
      form().field('said', said).attach('file', Buffer.alloc(11e6), 'photo'),
      form().field('said', said).attach('file', file, 'photo').attach('file', file, 'another'),
    ])
    expect(answers.map(({ status, body }) => [status, body.error])).toEqual(
      [
        [415, /a form of two parts/],
        [400, /needs two parts/],
        [400, /needs two parts/],
        [400, /not valid JSON/],
        [400, /nested deeper than/],
        [413, /too long/],
        [413, /larger than the 10 MB/],
        [400, /cannot be read/],
      ].map(([status, words]) => [status, expect.stringMatching(words as RegExp)]),
    )
    expect(await kept()).toEqual(before)
    // The same key for another picture is another request.
    const sent = photo()
    expect((await post(sent, file, sent.id)).status).toBe(200)
    expect((await post(sent, await turned({ IFD0: { Artist: 'A fourth' } }), sent.id)).status).toBe(409)
    expect((await post(sent, file, sent.id)).body).toEqual({ added: true })
  })

  it('that are no pictures are refused, and nobody else’s are shown', async () => {
    const bad = await post(photo(), Buffer.from('<svg onload="x"/>'))
    expect([bad.status, bad.body.error]).toEqual([422, expect.stringMatching(/not a picture/)])
    const svg = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>')
    expect((await post(photo(), svg)).status).toBe(422)
    const [{ id }] = await practice.db('photos').limit(1)
    const stranger = await practice.join('passer-by', null)
    expect((await stranger.get(`${garden}/photos/${id}`)).status).toBe(404)
  })
})

describe('the record', () => {
  it('follows each walk, says nothing from little, and is the same when asked again', async () => {
    const first: RecordView = (await practice.head.get(`${garden}/record`)).body
    expect(first.stays.some((s) => s.scores.length > 0)).toBe(true)
    expect((await practice.head.get(`${garden}/record`)).body).toEqual(first)
    const young = view.plantings.at(-1)!
    await send(crew, [look(young.id, { rating: 5 })])
    const after: RecordView = (await practice.head.get(`${garden}/record`)).body
    const stay = after.stays.find((s) => s.plantingId === young.id)!
    expect(stay.scores.map(([season]) => season)).toContain(2026)
  })

  it('holds a trial and what came of it', async () => {
    const planting = view.plantings[1]!
    const trial = `${garden}/plantings/${planting.id}/trial`
    expect((await crew.post(trial, { on: '2026-06-01', outcome: 'trial' })).status).toBe(403)
    await practice.head.post(trial, { on: '2024-05-01', outcome: 'trial', reason: 'To see.' })
    const running: RecordView = (await practice.head.get(`${garden}/record`)).body
    expect(running.trials.map((t) => t.plantingId)).toEqual([planting.id])
    expect((await practice.head.post(trial, { on: '2026-06-01', outcome: 'expand' })).status).toBe(422)
    await practice.head.post(trial, { on: '2026-06-01', outcome: 'expand', driftCount: 7 })
    expect((await practice.head.get(`${garden}/record`)).body.trials).toEqual([])
    const { story } = (await crew.get(`${garden}/plantings/${planting.id}`)).body
    expect(story.some((s: { says: string }) => s.says === 'Trial ended: to be grown to a drift of 7.')).toBe(
      true,
    )
  })
})

describe('bloom', () => {
  it('of a planting that was cut is compared with its own season left alone', async () => {
    const planting = view.plantings.find((p) => p.taxon.botanical === 'Fuchsia magellanica')!
    const seen = (on: string, stage: string) => ({ ...look(planting.id, { on }), rating: undefined, stage })
    await send(crew, [
      seen('2024-06-20', 'bud'),
      seen('2024-07-02', 'full'),
      seen('2024-09-30', 'fading'),
      seen('2025-07-06', 'bud'),
      seen('2025-07-20', 'opening'),
      seen('2025-10-20', 'fading'),
    ])
    const cut = `${garden}/plantings/${planting.id}/treatments`
    expect((await crew.post(cut, { on: '2025-05-25', what: 'mown' })).status).toBe(422)
    expect((await crew.post(cut, { on: '2025-05-25', what: 'cut by half' })).status).toBe(200)
    const bloom: BloomView = (await crew.get(`${garden}/bloom?season=2025`)).body
    expect(bloom.effects).toMatchObject([
      { taxon: 'Fuchsia magellanica', what: 'cut by half', season: 2025, fellows: [], longerDays: 2 },
    ])
    expect(bloom.effects[0]!.laterDays).toBeGreaterThan(10)
    const place = bloom.places.find((p) => p.placeId === planting.placeId)!
    expect(place.weeks.findLast((w) => w.from <= '2025-07-20' && w.seen)!.cover).toBeGreaterThan(0)
    expect((await crew.get(`${garden}/bloom?season=soon`)).status).toBe(422)
  })
})

describe('signs', () => {
  it('shared by a bed and not drawn raise one suspicion, which is dismissed once', async () => {
    const bed = view.features.find(
      (f) => f.kind === 'bed' && view.plantings.filter((p) => p.placeId === f.id).length >= 3,
    )!
    const today = new Date().toISOString().slice(0, 10)
    const here = view.plantings.filter((p) => p.placeId === bed.id)
    const signs = ['stays-wet', 'yellowing', 'crown-rot']
    // Looked at this month: signs of another season are of another state of things.
    await send(
      crew,
      here.map((p) => look(p.id, { on: today, signs, rating: 2 })),
    )
    const table = `${garden}/likelihoods`
    const { rows: shipped } = (await crew.get(table)).body
    expect(shipped.length).toBeGreaterThan(50)
    const found: DiagnosisView = (await crew.get(`${garden}/diagnosis`)).body
    expect(found.diagnoses.length).toBeGreaterThanOrEqual(here.length)
    for (const d of found.diagnoses) if (d.usual.resting) expect(d.failing).toBe(false)
    // In the dead of the year everything may be at rest; then nothing may be suspected.
    const awake = found.diagnoses.filter((d) => !d.usual.resting && here.some((p) => p.id === d.plantingId))
    if (awake.length < 2) return expect(found.suspected).toEqual([])
    expect(found.suspected.map((s) => [s.placeId, s.cause])).toEqual([[bed.id, 'wetter']])
    expect((await crew.post(`${garden}/recheck`)).body).toEqual({ ok: true })
    const raised = async () =>
      (await crew.get(`${garden}/suspicions`)).body.suspicions.filter(
        (s: { detail: { kind: string } }) => s.detail.kind === 'signs',
      )
    const [suspicion] = await raised()
    await practice.head.post(`${garden}/suspicions/${suspicion.id}`, { state: 'dismissed' })
    await crew.post(`${garden}/recheck`)
    expect(await raised()).toEqual([])
  })

  it('are read by the practice’s own table where it has one', async () => {
    const table = `${garden}/likelihoods`
    const edit = { sign: 'yellowing', cause: 'wetter', share: 0.05 }
    expect((await crew.post(table, edit)).status).toBe(403)
    expect((await practice.head.post(table, { ...edit, share: 2 })).status).toBe(422)
    await practice.head.post(table, edit)
    const row = async () =>
      (await crew.get(table)).body.rows.find(
        (r: { sign: string; cause: string }) => r.sign === 'yellowing' && r.cause === 'wetter',
      )
    expect(await row()).toMatchObject({ share: 0.05, shipped: 0.45, changedBy: 'head' })
    await practice.head.post(table, { ...edit, share: null })
    expect(await row()).toMatchObject({ share: 0.45, changedBy: null })
  })
})

describe('observations as a file', () => {
  it('go out and come back the same, into a garden that has lost them', async () => {
    const out = (await crew.get(`${garden}/observations.csv`)).text
    const before = await standing().orderBy('id')
    await practice.db('observations').delete()
    const back = await practice.head.post(`${garden}/observations-file`, { csv: out })
    expect(back.body).toEqual({ added: before.length, known: 0 })
    expect((await crew.get(`${garden}/observations.csv`)).text.split('\r\n').length).toBe(
      out.split('\r\n').length,
    )
    const kept = ['id', 'on_date', 'rating', 'living', 'absent', 'stage', 'signs', 'note'] as const
    const only = (r: Record<string, unknown>) => kept.map((k) => r[k])
    expect((await standing().orderBy('id')).map(only)).toEqual(before.map(only))
    expect((await practice.head.post(`${garden}/observations-file`, { csv: out })).body.added).toBe(0)
  })

  it('are refused whole, each fault with its line and column', async () => {
    const n = await rows('observations')
    const tag = view.plantings[0]!.tag
    const csv = `tag,date,rating,stage,signs\n${tag},2026-06-01,4,,\nX-99,2026-06-01,4,,\n${tag},2026-06-02,7,blooming,sunstroke\n${tag},2026-06-03,,,\n`
    const answer = await practice.head.post(`${garden}/observations-file`, { csv })
    expect(answer.status).toBe(422)
    expect(answer.body.problems.map((p: { message: string }) => p.message.split(':')[0])).toEqual([
      'observations.csv, line 3, column tag',
      'observations.csv, line 4, column rating',
      'observations.csv, line 4, column stage',
      'observations.csv, line 4, column signs',
      'observations.csv, line 5, column rating',
    ])
    expect(await rows('observations')).toBe(n)
  })

  it('without ids are added once, however often the file is read', async () => {
    const tag = view.plantings[0]!.tag
    const csv = `tag,date,rating,absent,signs,note\n${tag},2025-06-01,4,,"mildew; aphids","Ladybirds, ""lots"""\n`
    expect((await practice.head.post(`${garden}/observations-file`, { csv })).body).toEqual({
      added: 1,
      known: 0,
    })
    expect((await practice.head.post(`${garden}/observations-file`, { csv })).body).toEqual({
      added: 0,
      known: 1,
    })
  })
})
