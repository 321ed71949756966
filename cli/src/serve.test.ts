import { addressOf, listeningOf } from '@border/server/listening'
import { createServer, type Server } from 'node:net'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { keepUp } from './keepUp.ts'
import { whereToServe } from './serve.ts'
import { border } from './test/border.ts'

const open: Server[] = []
afterEach(() => {
  vi.restoreAllMocks()
  for (const server of open.splice(0)) server.close()
})

const listenSomewhere = () =>
  new Promise<number>((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () =>
      resolve((server.address() as { port: number }).port),
    )
    open.push(server)
  })

describe('where to serve', () => {
  it('is where HOST and PORT say, and loopback where they say nothing', async () => {
    expect(listeningOf({}, 5180)).toEqual({ host: '127.0.0.1', port: 5180 })
    const port = await listenSomewhere()
    // Every address of 127/8 is this machine, and what is taken at one of them is free at another.
    const told = { HOST: '127.0.0.2', PORT: String(port) }
    expect(await whereToServe(5180, told)).toEqual({ host: '127.0.0.2', port })
    expect(addressOf({ host: '0.0.0.0', port: 80 })).toBe('http://127.0.0.1:80')
    expect(addressOf({ host: '::', port: 80 })).toBe('http://[::1]:80')
  })

  it('moves on from a usual port that is taken, and never from one that was asked for', async () => {
    const taken = await listenSomewhere()
    expect((await whereToServe(taken, {})).port).toBeGreaterThan(taken)
    await expect(whereToServe(5180, { PORT: String(taken) })).rejects.toThrow(
      `Something else is served on 127.0.0.1:${taken} already.`,
    )
  })

  it.each(['0', '65536', '80.5', 'http', '0x50', ' 80'])('is not the port “%s”', async (PORT) => {
    await expect(whereToServe(5180, { PORT })).rejects.toThrow('PORT takes a port number')
    expect(await border('scratch', '--port', PORT)).toMatchObject({ status: 2 })
  })

  it('is not at an address of another machine', async () => {
    // Of a net that is kept for documents: no machine has it.
    await expect(whereToServe(5180, { HOST: '192.0.2.1', PORT: '5180' })).rejects.toThrow(
      'Nothing can be served on 192.0.2.1:5180',
    )
  })
})

describe('a server that is kept up', () => {
  /** Each life: whether it answers, and the code it ends with; the last goes on until it is told to end. */
  type Life = [answers: boolean, code: number]
  function kept(lives: readonly Life[], isWanted = () => true) {
    vi.spyOn(process.stderr, 'write').mockImplementation(() => true)
    const stopped = new AbortController()
    const onReady = vi.fn()
    const waits: number[] = []
    let begun = 0
    const begin = async () => {
      const [answers, code] = lives[begun++] ?? [true, undefined]
      let end = (_code: number) => {}
      const ended = new Promise<number>((resolve) => (end = resolve))
      if (code !== undefined) end(code)
      return { answers: Promise.resolve(answers), ended, end: async () => end(0) }
    }
    const wait = async (ms: number) => void waits.push(ms)
    const ends = keepUp(begin, { onReady, signal: stopped.signal, isWanted, wait })
    return { ends, begun: () => begun, waits, stopped, onReady }
  }

  it('is begun again after it ended by itself, later each time while it does not come up', async () => {
    const { ends, begun, waits, stopped, onReady } = kept([
      [true, 1],
      [false, 1],
      [false, 1],
      [true, 137],
    ])
    await vi.waitFor(() => expect(begun()).toBe(5))
    expect(waits).toEqual([1000, 2000, 4000, 1000])
    stopped.abort()
    expect(await ends).toBe(0)
    expect(onReady).toHaveBeenCalledTimes(1)
  })

  it.each<[string, Life, boolean, number]>([
    ['it was told to end', [true, 0], true, 0],
    ['it has never answered', [false, 2], true, 2],
    ['somebody stopped it while it was down', [true, 1], false, 1],
  ])('is left alone where %s', async (_why, life, isWanted, code) => {
    const { ends, begun } = kept([life], () => isWanted)
    expect(await ends).toBe(code)
    expect(begun()).toBe(1)
  })
})
