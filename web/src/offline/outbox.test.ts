import fc from 'fast-check'
import { describe, it, expect } from 'vitest'
import {
  dropRefused,
  note,
  noteDone,
  notePhoto,
  notedOn,
  sendWaiting,
  subjectOf,
  waitingOf,
} from './queue.ts'
import type { Entry } from './queued.ts'
import { walkDb } from './store.ts'
import { RecordStandIn, type Fate } from './test/recordStandIn.ts'

/**
 * The outbox as a state machine: people note, change their minds, record jobs and take photos; the wire loses what it likes; the
 * record refuses; two tabs send at once. The model knows only what each person said last.
 */

const people = ['nora', 'tom'] as const
const days = ['2026-09-13', '2026-09-14'] as const
const gardenId = 'garden'
type Person = (typeof people)[number]

interface Model {
  now: number
  /** What each said last of a subject on a day. */
  said: Map<string, { rating: number }>
  /** What a person threw away after it was refused. */
  thrownAway: Set<string>
  /** Jobs by who recorded them. */
  jobs: Map<string, Set<Person>>
  photos: Map<string, Person>
}

interface Real {
  server: RecordStandIn
  ids: number
}

const keyOf = (person: Person, entry: Pick<Entry, 'on'> & Parameters<typeof subjectOf>[0]) =>
  `${person} | ${entry.on} | ${subjectOf(entry)}`
const newId = (real: Real) => `id ${++real.ids}`
/** Of which entry which person wrote it: the record knows by who was signed in. */
const writers = new Map<string, Person>()

type Step = fc.AsyncCommand<Model, Real>
const step = (
  name: string,
  run: (model: Model, real: Real) => Promise<void>,
  check?: (m: Model) => boolean,
): Step => ({
  check: (m) => check?.(m) ?? true,
  run: async (model, real) => {
    model.now += 500
    await run(model, real)
    await expectNothingTwice(real)
  },
  toString: () => name,
})

/** At no moment does the record hold two words of one person on one subject of one day. */
async function expectNothingTwice({ server }: Real): Promise<void> {
  const keys = server.standing().map((e) => keyOf(writers.get(e.id)!, e as Entry))
  expect(keys.filter((k, i) => keys.indexOf(k) !== i)).toEqual([])
  const jobs = [...server.jobs.values()].map((j) => j.jobId)
  expect(jobs.filter((j, i) => jobs.indexOf(j) !== i)).toEqual([])
}

const noting = fc
  .record({
    // Few subjects, so that the same one is spoken of again and again.
    person: fc.constantFrom(...people),
    on: fc.constantFrom(days[1], days[1], days[0]),
    subject: fc.constantFrom('a', 'a', 'b'),
    isPlace: fc.boolean(),
    rating: fc.integer({ min: 1, max: 5 }),
  })
  .map(({ person, on, subject, isPlace, rating }) =>
    step(
      `${person} notes ${rating} of ${isPlace ? 'place' : 'planting'} ${subject} on ${on}`,
      async (model, real) => {
        const at = `${on}T09:00:00Z`
        // What was seen is told in the note, so that places and plantings are compared alike.
        const entry: Entry = isPlace
          ? { kind: 'place', id: '', on, at, placeId: subject, note: `seen ${rating}` }
          : { kind: 'planting', id: '', on, at, plantingId: subject, note: `seen ${rating}` }
        const queued = await note({ gardenId, personId: person }, entry, model.now, () => newId(real))
        writers.set(queued.id, person)
        model.said.set(keyOf(person, entry), { rating })
        model.thrownAway.delete(keyOf(person, entry))
        // What was noted is there to be read at once.
        const noted = await notedOn({ gardenId, personId: person }, on)
        expect(noted.get(subjectOf(entry))?.entry.note).toBe(`seen ${rating}`)
      },
    ),
  )

const recordingJob = fc
  .record({
    person: fc.constantFrom(...people),
    job: fc.constantFrom('prune', 'mulch'),
    minutes: fc.integer({ min: 1, max: 90 }),
  })
  .map(({ person, job, minutes }) =>
    step(`${person} records ${job}, ${minutes} min`, async (model, real) => {
      await noteDone({
        gardenId,
        personId: person,
        id: newId(real),
        notedAt: model.now,
        jobId: job,
        title: job,
        done: { on: days[1], minutes },
      })
      model.jobs.set(job, (model.jobs.get(job) ?? new Set()).add(person))
    }),
  )

const photographing = fc.constantFrom(...people).map((person) =>
  step(`${person} takes a photo`, async (model, real) => {
    const id = newId(real)
    await notePhoto({
      id,
      gardenId,
      personId: person,
      state: 'noted',
      notedAt: model.now,
      picture: new Blob(['x']),
      about: { takenOn: days[1] } as never,
    })
    model.photos.set(id, person)
  }),
)

const sending = fc
  .record({
    person: fc.constantFrom(...people),
    lose: fc.constantFrom<Fate>('nothing', 'nothing', 'request', 'answer'),
    all: fc.boolean(),
    tabs: fc.constantFrom(1, 1, 2),
    refuses: fc.subarray(['planting a', 'place b']),
    refusesAll: fc.constantFrom(false, false, false, true),
    breaksOver: fc.subarray(['planting b', 'place a']),
  })
  .map(({ person, lose, all, tabs, refuses, refusesAll, breaksOver }) =>
    step(
      `${person} sends${all ? ' all' : ''} from ${tabs} tabs, losing ${lose}, refusing ${refusesAll ? 'all' : refuses.join()}, breaking over ${breaksOver.join()}`,
      async (model, { server }) => {
        const ofOthers = [...server.kept.keys()].filter((id) => writers.get(id) !== person).length
        Object.assign(server, {
          lose,
          refuses: new Set(refuses),
          refusesAll,
          breaksOver: new Set(breaksOver),
        })
        await Promise.allSettled(
          Array.from({ length: tabs }, () => sendWaiting(server.wire, person, model.now, all)),
        )
        Object.assign(server, {
          lose: 'nothing',
          refuses: new Set(),
          refusesAll: false,
          breaksOver: new Set(),
        })
        // Nothing of anybody else went with it.
        expect([...server.kept.keys()].filter((id) => writers.get(id) !== person)).toHaveLength(ofOthers)
      },
    ),
  )

const waiting = fc.integer({ min: 1_000, max: 30_000 }).map((ms) =>
  step(`${ms / 1000} s go by`, async (model) => {
    model.now += ms
    await Promise.resolve()
  }),
)

const throwingAway = fc.constantFrom(...people).map((person) =>
  step(`${person} throws away what was refused`, async (model) => {
    for (const q of (await waitingOf(person)).refused) {
      expect(q.why).toBeTruthy()
      if ('entry' in q) model.thrownAway.add(keyOf(person, q.entry as Entry))
      else if ('jobId' in q) model.jobs.get(q.jobId)?.delete(person)
      else model.photos.delete(q.id)
      await dropRefused(q.id)
    }
  }),
)

/** Whatever happened: once nothing is lost any more, all that was said last is in the record, or is still there to be read with why not. */
async function expectNothingLost(model: Model, real: Real): Promise<void> {
  const { server } = real
  for (const person of people) await sendWaiting(server.wire, person, model.now + 60_000, true)
  await expectNothingTwice(real)
  const standing = new Map(server.standing().map((e) => [keyOf(writers.get(e.id)!, e as Entry), e.note]))
  const refused = new Map<string, string | undefined>()
  for (const person of people) {
    const left = await waitingOf(person)
    expect([left.entries, left.jobs, left.photos]).toEqual([0, 0, 0])
    for (const q of left.refused)
      if ('entry' in q) refused.set(keyOf(person, q.entry as Entry), q.entry.note)
      else refused.set('jobId' in q ? `${person} did ${q.jobId}` : `photo ${q.id}`, q.why)
  }
  for (const [key, { rating }] of model.said) {
    const words = `seen ${rating}`
    const isThere = standing.get(key) === words || refused.get(key) === words || model.thrownAway.has(key)
    expect([key, words, isThere, standing.get(key), refused.get(key)]).toEqual([
      key,
      words,
      true,
      standing.get(key),
      refused.get(key),
    ])
  }
  for (const [job, by] of model.jobs) {
    if (by.size === 0) continue
    const isRecorded = [...server.jobs.values()].some((j) => j.jobId === job)
    const unheard = [...by].filter((person) => !isRecorded && !refused.has(`${person} did ${job}`))
    expect([job, unheard]).toEqual([job, []])
  }
  for (const id of model.photos.keys())
    expect([id, server.photos.has(id) || refused.has(`photo ${id}`)]).toEqual([id, true])
}

describe('the outbox', () => {
  it('loses nothing and doubles nothing, whatever is noted, lost, refused or sent twice', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.commands(
          [noting, noting, noting, sending, sending, recordingJob, photographing, waiting, throwingAway],
          {
            maxCommands: 60,
            size: 'max',
          },
        ),
        async (steps) => {
          const db = await walkDb()
          for (const store of ['entries', 'photos', 'jobs'] as const) await db.clear(store)
          writers.clear()
          const model: Model = {
            now: 1_000_000,
            said: new Map(),
            thrownAway: new Set(),
            jobs: new Map(),
            photos: new Map(),
          }
          const real: Real = { server: new RecordStandIn(), ids: 0 }
          await fc.asyncModelRun(() => ({ model, real }), steps)
          await expectNothingLost(model, real)
        },
      ),
      { numRuns: 60, endOnFailure: false },
    )
  })
})
