// @vitest-environment happy-dom
import {
  gardenEndpoints,
  recordEndpoints,
  reworkEndpoints,
  seasonEndpoints,
  taxonEndpoints,
  type JobView,
  type RelocatedView,
  type ReworkView,
  type StepsView,
} from '@border/contract'
import { library } from '@border/core'
import { screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, Refuses } from '../test/server.ts'
import { progressWords } from './reworkWords.ts'

const [rework] = answerTo(reworkEndpoints.list)
const [scheme] = rework!.schemes
const season = answerTo(seasonEndpoints.read)
const [usual] = season.jobs
const window = usual!.window

const step = (key: string, title: string, more: object = {}) => ({
  key,
  stage: 'plant' as const,
  title,
  placeId: rework!.placeId,
  plantingId: null,
  driftId: null,
  window,
  minutes: 90,
  after: [],
  ...more,
})
const found: StepsView = {
  ok: true,
  steps: [
    step('lift', 'Lift the phlox', { stage: 'make room', minutes: 30 }),
    step('plant', 'Plant 5 hostas', { after: ['lift'] }),
  ],
  turns: [
    { from: window.earliest, until: window.latest, driftIds: [], says: 'Planted in autumn, for a reason.' },
  ],
}
const job = (id: string, more: Partial<JobView>): JobView => ({
  ...usual!,
  id,
  ruleId: null,
  schemeId: scheme!.id,
  stage: 'plant',
  plantingIds: [],
  tags: [],
  after: [],
  state: 'open',
  done: null,
  unplaced: null,
  materials: [],
  ...more,
})
const [first, second] = [crypto.randomUUID(), crypto.randomUUID()]
const lifted = job(first, { title: 'Lift the phlox', kind: 'weed', stage: 'make room' })
const planting = job(second, {
  title: 'Plant 5 hostas',
  kind: 'plant',
  after: [first],
  sets: { driftId: crypto.randomUUID(), botanical: 'Hosta sieboldiana', count: 5 },
})
const done = (lived: number | null) => ({
  on: '2026-09-14',
  minutes: 30,
  lived,
  used: null,
  note: null,
  by: 'Ada',
})

let server: MockServer
const stands = (more: Partial<ReworkView['schemes'][number]>, jobs: JobView[] = []) => {
  server
    .on(reworkEndpoints.list, () => [{ ...rework!, schemes: [{ ...scheme!, ...more }] }])
    .on(seasonEndpoints.read, () => ({ ...season, jobs }))
}
const open = () => openApp(`/g/${gardenId}/rework/${rework!.id}?part=steps`)
beforeEach(async () => {
  server = await MockServer.fresh()
  server
    .on(reworkEndpoints.steps, (): StepsView => found)
    .on(reworkEndpoints.relocate, (): RelocatedView => ({ ok: true, cost: 0, gap: 0, went: [] }))
    .on(taxonEndpoints.list, () => library.map((t) => ({ ...t, own: null })))
  stands({})
})

describe('a scheme that is not carried out yet', () => {
  it('shows its steps by the part of the work, when and why then, and is accepted as it was seen', async () => {
    const { user } = open()
    await screen.findByText(/^2 steps, 2 h of work$/)
    screen.getByText('Planted in autumn, for a reason.')
    within(screen.getByRole('region', { name: 'Make room' })).getByText('Lift the phlox')
    within(screen.getByRole('region', { name: 'Set out and plant' })).getByText('Plant 5 hostas')
    expect(screen.getAllByRole('img', { name: /, best / })).toHaveLength(2)
    await user.click(screen.getByRole('button', { name: 'Carry it out' }))
    await waitFor(() => expect(server.askedOf(reworkEndpoints.acceptScheme)).toHaveLength(1))
    expect(server.askedOf(reworkEndpoints.acceptScheme)[0]!.body).toEqual({ revisionId: scheme!.revisionId })
  })

  it('says what keeps it from being carried out, and offers nothing', async () => {
    server.on(reworkEndpoints.steps, (): StepsView => ({
      ok: false,
      problems: ['A-1 resents moving: let it stay.'],
    }))
    open()
    await screen.findByText('A-1 resents moving: let it stay.')
    expect(screen.queryByRole('button', { name: 'Carry it out' })).toBeNull()
  })

  it('says why nothing could be worked out, with a way to ask again', async () => {
    server.on(
      reworkEndpoints.steps,
      () => new Refuses(409, 'Hosta has no ground yet: lay the scheme out first.'),
    )
    open()
    await screen.findByText(/lay the scheme out first/)
  })
})

describe('a scheme that is carried out', () => {
  const accepted = { at: '2026-09-10T08:00:00Z', by: 'Ada' }

  it('is fixed, says what is next and records it here; what waits for it cannot be recorded yet', async () => {
    stands({ accepted, steps: { done: 0, open: 2 } }, [planting, lifted])
    const { user } = open()
    await screen.findByRole('heading', { name: 'Next: Lift the phlox' })
    screen.getByText('Being carried out: it is fixed.')
    expect(screen.queryByRole('button', { name: 'Undo' })).toBeNull()
    expect(screen.queryByRole('button', { name: 'Carry it out' })).toBeNull()
    await user.click(screen.getByRole('button', { name: 'Record it done' }))
    await screen.findByRole('button', { name: 'Record' })
    await user.click(screen.getByRole('button', { name: 'Call it off' }))
    await waitFor(() => expect(server.askedOf(reworkEndpoints.callOffScheme)).toHaveLength(1))
  })

  it('asks how many were planted, as many as planned unless said otherwise', async () => {
    stands({ accepted, steps: { done: 1, open: 1 } }, [
      { ...lifted, state: 'done', done: done(null) },
      planting,
    ])
    const { user } = open()
    await screen.findByRole('heading', { name: 'Next: Plant 5 hostas' })
    await user.click(screen.getByRole('button', { name: 'Record it done' }))
    expect(((await screen.findByLabelText('Planted')) as HTMLInputElement).value).toBe('5')
  })

  it('names the first step that has no day, and what lives of what was planted', async () => {
    const unplaced = 'The working days in its window are full: 20 minutes short on the emptiest.'
    stands({ accepted, steps: { done: 1, open: 2 } }, [
      { ...lifted, unplaced },
      { ...planting, id: crypto.randomUUID(), unplaced: 'It waits for a job that has no day yet.' },
      { ...planting, after: [], state: 'done', done: done(5), plantingIds: [] },
    ])
    open()
    await screen.findByText(/^2 steps have no day in the season\. Lift the phlox: The working days/)
    screen.getByText(/^Of 5 plants set, 0 are alive, 0 in a hundred\. Lost: 5 of 5/)
  })

  it('tells how what was planted was rated season by season; or that it could not be read', async () => {
    const { plantings } = answerTo(gardenEndpoints.read)
    const [p] = plantings
    const jobs = [{ ...planting, after: [], state: 'done' as const, done: done(5), plantingIds: [p!.id] }]
    stands({ accepted, steps: { done: 1, open: 0 } }, jobs)
    const record = answerTo(recordEndpoints.read)
    const stay = { ...record.stays[0]!, id: 'stay', plantingId: p!.id }
    server.on(recordEndpoints.read, () => ({
      ...record,
      stays: [{ ...stay, scores: [[2025, 3.5, 3.4, 2, ''] as const, [2026, 2.25, 2.4, 3, ''] as const] }],
    }))
    const { user, unmount } = open()
    await user.click(await screen.findByText('How each kind held'))
    const table = within(screen.getByRole('table', { name: 'How each kind held' }))
    table.getByText(`${p!.livingCount} of 5`)
    expect(table.getByText('2025: 3.5, 2026: 2.3').className).toBe('late')
    unmount()
    server.on(recordEndpoints.read, () => new Refuses(503, 'away'))
    open()
    await screen.findByText('How it was rated could not be read.')
  })
})

describe('words', () => {
  it.each([
    [{ done: 0, open: 9 }, 'to be carried out, 9 steps'],
    [{ done: 1, open: 8 }, '1 of 9 steps is done'],
    [{ done: 5, open: 4 }, '5 of 9 steps are done'],
    [{ done: 9, open: 0 }, 'carried out, in 9 steps'],
  ])('of %j are %s', (steps, words) => expect(progressWords({ steps })).toBe(words))
})
