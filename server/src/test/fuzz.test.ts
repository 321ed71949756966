import { endpoints, type Endpoint } from '@border/contract'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { fuzz } from './fuzz.ts'
import { settle, write } from './asked.ts'
import { practiceWithGarden, shortRecord, type TestPractice } from './practice.ts'
import { validWrites, type Sent } from './validWrites.ts'

const TODAY = '2026-09-15'
/** Sent to each address here; `npm run faults -w server` sends more. */
const INPUTS = Number(process.env.FUZZ_INPUTS ?? 6)
const SEED = Number(process.env.FUZZ_SEED ?? 1)

let practice: TestPractice
let valid: ReadonlyMap<Endpoint, () => Promise<Sent>>

beforeAll(async () => {
  practice = await practiceWithGarden(shortRecord, () => Date.parse(`${TODAY}T10:00:00Z`))
  await practice.work([0, 240, 240, 240, 240, 240, 0])
  await settle(practice)
  valid = validWrites(practice, TODAY)
})
afterAll(() => practice.stop())

const taking = Object.values(endpoints)
  .flatMap((area) => Object.values<Endpoint>(area))
  .filter((e) => e.body && !e.path.startsWith('/session/'))

describe('whatever is sent', () => {
  it.each(taking.map((e) => [e.path, e] as const))(
    'to %s is taken, or refused with a word',
    async (_path, endpoint) => {
      // What was taken before may have moved the garden to where nothing grows.
      await write(practice, '/amend', { latitude: 52.1, longitude: 1.3, northDeg: 0 })
      const found = await fuzz(practice, endpoint, valid.get(endpoint)!, { inputs: INPUTS, seed: SEED })
      expect(found.faults).toEqual([])
      expect(found.sent).toBe(INPUTS)
    },
  )

  it('leaves every screen as it can be read', async () => {
    await settle(practice, 100)
    for (const view of [
      '',
      '/season',
      '/walk',
      '/record',
      '/assessment',
      '/rules',
      '/diagnosis',
      '/crew',
      '/now',
    ])
      expect([view, (await practice.head.get(`/gardens/${practice.gardenId}${view}`)).status]).toEqual([
        view,
        200,
      ])
  })
})
