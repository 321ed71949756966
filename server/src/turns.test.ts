import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { behalfNow as behalf, onBehalfOf, Turns } from './turns.ts'
import { UnderWay } from './underWay.ts'

const settle = async () => {
  for (let i = 0; i < 50; i++) await Promise.resolve()
}

/** Tasks that end when they are told to, on a clock that stands still meanwhile. */
class Works {
  clock = 0
  readonly running: { garden: string; person: string; end: (tookMs: number) => Promise<void> }[] = []
  readonly done: { garden: string; person: string; tookMs: number }[] = []
  readonly turns: Turns
  constructor(slots: number, slotsOfOne: number, mostWaiting = 1_000) {
    this.turns = new Turns({ slots, slotsOfOne, mostWaiting, tooMany: 'Too many.' }, () => this.clock)
  }
  ask(garden: string, person: string, signal?: AbortSignal): Promise<void> {
    return onBehalfOf({ garden, person, signal }, () =>
      this.turns.take(
        () =>
          new Promise<void>((resolve) => {
            const task = {
              garden,
              person,
              end: async (tookMs: number) => {
                this.clock += tookMs
                this.running.splice(this.running.indexOf(task), 1)
                this.done.push({ garden, person, tookMs })
                resolve()
                await settle()
              },
            }
            this.running.push(task)
          }),
      ),
    )
  }
  time = (of: (d: { garden: string; person: string }) => boolean) =>
    this.done.filter(of).reduce((sum, d) => sum + d.tookMs, 0)
}

describe('turns', () => {
  it('are never more than there are, nor of one garden more than it may have, and none is left out', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 4 }),
        fc.integer({ min: 1, max: 4 }),
        fc.array(
          fc.oneof(
            fc.record({ ask: fc.tuple(fc.constantFrom('a', 'b', 'c'), fc.constantFrom('p', 'q')) }),
            fc.record({ end: fc.nat(9), tookMs: fc.nat(500) }),
            fc.record({ leave: fc.nat(9) }),
          ),
          { maxLength: 60 },
        ),
        async (slots, slotsOfOne, steps) => {
          const works = new Works(slots, slotsOfOne)
          const asked: { promise: Promise<string>; stop: AbortController }[] = []
          for (const step of steps) {
            if ('ask' in step) {
              const stop = new AbortController()
              const promise = works.ask(...step.ask, stop.signal).then(
                () => 'done',
                (error: Error) => error.name,
              )
              asked.push({ promise, stop })
            } else if ('end' in step)
              await works.running[step.end % (works.running.length || 1)]?.end(step.tookMs)
            else asked[step.leave % (asked.length || 1)]?.stop.abort()
            await settle()
            expect(works.running.length).toBeLessThanOrEqual(slots)
            for (const garden of ['a', 'b', 'c'])
              expect(works.running.filter((r) => r.garden === garden).length).toBeLessThanOrEqual(slotsOfOne)
          }
          while (works.running.length > 0) await works.running[0]!.end(1)
          const ends = await Promise.all(asked.map((a) => a.promise))
          // Who did not leave before it began was served.
          expect(ends.every((e) => e === 'done' || e === 'AbortError')).toBe(true)
          expect(ends.filter((e) => e === 'done').length).toBe(works.done.length)
        },
      ),
      { numRuns: 150 },
    )
  })

  it('of gardens that always ask come to the same time, however long the work of each', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.integer({ min: 1, max: 400 }), { minLength: 2, maxLength: 4 }),
        async (took) => {
          const works = new Works(1, 1, 10_000)
          for (let i = 0; i < 3; i++) for (const garden of took.keys()) void works.ask(String(garden), 'p')
          await settle()
          const longest = Math.max(...took)
          while (works.clock < 12 * longest) {
            const { garden, end } = works.running[0]!
            void works.ask(garden, 'p')
            await end(took[Number(garden)]!)
            const times = took.map((_, garden) => works.time((d) => d.garden === String(garden)))
            // Never further apart than one task (Goyal et al., theorem 1: the sum of both longest).
            expect(Math.max(...times) - Math.min(...times)).toBeLessThanOrEqual(2 * longest)
          }
        },
      ),
      { numRuns: 40 },
    )
  })

  it('in one garden come to its people alike, and nobody saves up while away', async () => {
    const works = new Works(1, 1, 10_000)
    for (let i = 0; i < 100; i++) void works.ask('a', 'p')
    await settle()
    for (let i = 0; i < 40; i++) await works.running[0]!.end(10)
    for (let i = 0; i < 100; i++) void works.ask('a', 'q')
    await settle()
    const before = works.done.length
    for (let i = 0; i < 40; i++) await works.running[0]!.end(10)
    const since = works.done.slice(before)
    expect(Math.abs(since.filter((d) => d.person === 'q').length - 20)).toBeLessThanOrEqual(2)
  })

  it('are refused to who has too many waiting, and to nobody else', async () => {
    const works = new Works(1, 1, 3)
    const all = Array.from({ length: 5 }, () =>
      works.ask('a', 'p').then(
        () => 'done',
        (e: Error) => e.message,
      ),
    )
    const other = works.ask('a', 'q')
    await settle()
    while (works.running.length > 0) await works.running[0]!.end(1)
    expect(await Promise.all(all)).toEqual(['done', 'done', 'done', 'done', 'Too many.'])
    await expect(other).resolves.toBeUndefined()
  })
})

describe('work under way', () => {
  const asked = (shared: UnderWay<string>, signal: AbortSignal | undefined, work: () => Promise<string>) =>
    onBehalfOf({ signal }, () => shared.join('it', work)).then(
      (v) => v,
      (error: Error) => error.name,
    )

  it('is done once for all who ask, and given up when the last of them has gone', async () => {
    const shared = new UnderWay<string>()
    const [one, two] = [new AbortController(), new AbortController()]
    let begun = 0
    let givenUp = false
    const work = () =>
      new Promise<string>((_, reject) => {
        begun++
        const { signal } = behalf()
        signal!.addEventListener('abort', () => {
          givenUp = true
          reject(signal!.reason as Error)
        })
      })
    const ends = [asked(shared, one.signal, work), asked(shared, two.signal, work)]
    one.abort()
    expect(await ends[0]).toBe('AbortError')
    expect([begun, givenUp]).toEqual([1, false])
    two.abort()
    expect(await ends[1]).toBe('AbortError')
    expect(givenUp).toBe(true)
    // Who comes now has not gone away.
    expect(await asked(shared, undefined, async () => 'anew')).toBe('anew')
  })

  it('tells all who wait what it came to, and is done anew afterwards', async () => {
    const shared = new UnderWay<string>()
    let n = 0
    const work = async () => `result ${++n}`
    expect(
      await Promise.all([asked(shared, undefined, work), asked(shared, new AbortController().signal, work)]),
    ).toEqual(['result 1', 'result 1'])
    expect(await asked(shared, undefined, work)).toBe('result 2')
    const broken = async () => Promise.reject(new RangeError('no'))
    expect(await Promise.all([asked(shared, undefined, broken), asked(shared, undefined, broken)])).toEqual([
      'RangeError',
      'RangeError',
    ])
  })
})
