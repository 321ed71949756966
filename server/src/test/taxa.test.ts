import type { GardenView, KnownTaxon } from '@border/contract'
import { writeTaxa } from '@border/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { insertPractice } from '../store/people.ts'
import { entering } from './edits.ts'
import { Client, member, practiceWithGarden, type TestPractice } from './practice.ts'

let practice: TestPractice
const post = (rest: string, body: object) => practice.head.post(rest, body)
const taxa = async (client = practice.head): Promise<KnownTaxon[]> => (await client.get('/taxa')).body
const kind = async (botanical: string) => (await taxa()).find((t) => t.botanical === botanical)
const plantings = async () =>
  ((await practice.head.get(`/gardens/${practice.gardenId}`)).body as GardenView).plantings

beforeAll(async () => {
  practice = await practiceWithGarden()
})
afterAll(() => practice.stop())

const bare = ({ own: _, ...taxon }: KnownTaxon) => taxon

describe('kinds of a practice’s own', () => {
  it('changes what is known of a kind for its own plantings only, and goes back', async () => {
    const before = (await plantings())[0]!
    const { botanical } = before.taxon
    const library = bare((await kind(botanical))!)
    expect((await post('/taxa', { taxon: { ...library, heightM: 1.23 } })).body).toEqual({ changed: true })
    expect(await kind(botanical)).toMatchObject({ own: 'changed', heightM: 1.23 })
    expect((await plantings())[0]!.taxon.heightM).toBe(1.23)
    // Another practice has the library as it is.
    const other = await insertPractice(practice.db, 'Others')
    const { email } = await member(practice.db, other, 'stranger', true)
    const stranger = new Client(practice.app)
    await stranger.signIn(email)
    const theirs = (await taxa(stranger)).find((t) => t.botanical === botanical)!
    expect(theirs).toMatchObject({ own: null, heightM: library.heightM })
    expect((await post('/taxa/remove', { botanical })).status).toBe(200)
    expect((await plantings())[0]!.taxon.heightM).toBe(library.heightM)
  })

  it('makes a new one from another; one that is planted stays', async () => {
    const from = bare((await kind('Geum chiloense'))!)
    const botanical = "Geum chiloense 'Harrow Lantern'"
    const taxon = { ...from, botanical, synonyms: [] }
    expect((await post('/taxa', { taxon })).status).toBe(200)
    const named = await post('/taxa', { taxon: { ...taxon, botanical: 'Geum triflorum' }, was: botanical })
    expect(named.status).toBe(200)
    expect(await kind(botanical)).toBeUndefined()
    const garden: GardenView = (await practice.head.get(`/gardens/${practice.gardenId}`)).body
    const fresh = {
      tag: 'NEW-1',
      taxonBotanical: 'Geum triflorum',
      placeId: garden.features.find((f) => f.name === 'North bed')!.id,
      count: 3,
      plantedOn: '2026-05-01',
      source: 'bought',
      x: 8.6,
      y: 22.9,
    }
    const planted = await post(`/gardens/${practice.gardenId}/plantings`, entering(fresh))
    expect(planted.status).toBe(200)
    expect((await post('/taxa/remove', { botanical: 'Geum triflorum' })).status).toBe(409)
  })

  it('refuses what contradicts itself, with the trait', async () => {
    const from = bare((await kind('Geum chiloense'))!)
    const bad = await post('/taxa', { taxon: { ...from, spacingM: 9 } })
    expect(bad.status).toBe(422)
    expect(bad.body.problems[0].message).toContain('spacingM')
  })

  it('takes a file in once, whole or not at all', async () => {
    const all = (await taxa()).map(bare)
    const changed = all.slice(0, 5).map((t, i) => (i < 2 ? { ...t, yearsToSize: 7.5 } : t))
    const csv = writeTaxa(changed)
    expect((await post('/taxa-file', { csv })).body).toEqual({ changed: 2, same: 3 })
    expect((await post('/taxa-file', { csv })).body).toEqual({ changed: 0, same: 5 })
    const bad = await post('/taxa-file', {
      csv: writeTaxa([
        { ...all[9]!, heightM: 2 },
        { ...all[10]!, phMin: 9 },
      ]),
    })
    expect(bad.status).toBe(422)
    expect(bad.body.problems[0].message).toContain('line 3')
    expect((await kind(all[9]!.botanical))!.own).toBeNull()
    const own = (await practice.head.get('/taxa.csv?own')).text.trim().split('\r\n')
    expect(own).toHaveLength(1 + (await taxa()).filter((t) => t.own).length)
    const crew = await practice.join('hand', 'crew')
    expect((await crew.post('/taxa-file', { csv })).status).toBe(403)
  })
})
