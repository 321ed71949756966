import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { practiceWithGarden, takeAway, type TestPractice } from './practice.ts'

/** The database goes away and comes back: nothing ends, whoever asks is told, and everything goes on by itself. */

let practice: TestPractice
let treeId: string

beforeAll(async () => {
  practice = await practiceWithGarden()
  treeId = (await practice.db('features').where({ kind: 'tree' }).first('id')).id
})
afterAll(() => practice.stop())

const names = (): Promise<string[]> => practice.db('what_ifs').pluck('name')
const addresses = () => ['/session', '/gardens', `/gardens/${practice.gardenId}`]

describe('while the database is away', () => {
  it('every question is answered with when to ask again, and is answered when it is back', async () => {
    const comeBack = await takeAway(practice.url)
    for (const address of addresses()) {
      const { status, headers, body } = await practice.head.get(address)
      expect([address, status, headers['retry-after']]).toEqual([address, 503, '2'])
      expect(body.error).toMatch(/cannot be reached just now/)
    }
    await comeBack()
    for (const address of addresses()) expect((await practice.head.get(address)).status).toBe(200)
  })

  it('time and again, under traffic: what was acknowledged is there, once, and what was refused is not', async () => {
    const kept: string[] = []
    const outcomes = new Set<number>()
    let isOver = false
    const traffic = async (walker: number) => {
      for (let k = 0; !isOver; k++) {
        const name = `${walker} ${k}`
        const { status } = await practice.head.post(`/gardens/${practice.gardenId}/what-ifs`, {
          name,
          suppositions: [{ obstructionId: treeId, gone: true }],
        })
        outcomes.add(status)
        if (status === 200) kept.push(name)
      }
    }
    const walkers = [0, 1, 2].map(traffic)
    for (let time = 0; time < 8; time++) {
      await new Promise((r) => setTimeout(r, 120))
      const comeBack = await takeAway(practice.url)
      await new Promise((r) => setTimeout(r, 60))
      await comeBack()
    }
    isOver = true
    await Promise.all(walkers)
    expect([...outcomes].sort()).toEqual([200, 503])
    const found = await names()
    expect(new Set(found).size).toBe(found.length)
    expect(kept.filter((name) => !found.includes(name))).toEqual([])
  })
})
