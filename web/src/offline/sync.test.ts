// @vitest-environment happy-dom
import { sessionEndpoints, type AnswerOf } from '@border/contract'
import { beforeEach, describe, expect, it } from 'vitest'
import { answerTo, MockServer } from '../test/server.ts'
import { seemsOffline, startSync, syncState } from './sync.ts'

type Answer = AnswerOf<typeof sessionEndpoints.read>

let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
})

describe('a pass over what waits', () => {
  it('that outlives who began it is told to nobody who comes after', async () => {
    let answer = (_: Answer) => {}
    server.on(sessionEndpoints.read, () => new Promise<Answer>((resolve) => (answer = resolve)))
    const { id } = answerTo(sessionEndpoints.read).person!
    const stop = startSync(id)
    seemsOffline()
    // Nobody answered: whether somebody does now is asked with the next pass.
    document.dispatchEvent(new Event('visibilitychange'))
    await server.settled()
    expect(server.askedOf(sessionEndpoints.read)).toHaveLength(1)
    stop()
    expect(syncState().offline).toBe(false)
    const stopNext = startSync(id)
    seemsOffline()
    answer(answerTo(sessionEndpoints.read))
    await server.settled()
    expect(syncState().offline).toBe(true)
    stopNext()
  })
})
