// @vitest-environment happy-dom
import { gardenEndpoints, seasonEndpoints, type JobView } from '@border/contract'
import { screen, within } from '@testing-library/react'
import fc from 'fast-check'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer } from '../test/server.ts'
import { passes } from './JobFilter.tsx'
import { weekFrom } from './WeekPlan.tsx'
import { wordIn } from './YearByPlace.tsx'

const season = answerTo(seasonEndpoints.read)
const { features } = answerTo(gardenEndpoints.read)
const [court, north] = features.filter((f) => f.kind === 'bed')
const [open] = season.jobs.filter((j) => j.state === 'open')
const job = (title: string, kind: JobView['kind'], placeId: string, day: string | null): JobView => ({
  ...open!,
  id: crypto.randomUUID(),
  title,
  kind,
  placeId,
  placeIds: [placeId],
  plannedOn: day,
  parts: day ? [{ day, minutes: 45 }] : [],
})
const jobs = [
  job('Divide the irises', 'divide', court!.id, '2026-09-16'),
  job('Weed the court', 'weed', court!.id, '2026-09-18'),
  job('Weed the north bed', 'weed', north!.id, '2026-09-23'),
  job('Mulch the court', 'mulch', court!.id, null),
]
const workingDays = [
  { day: '2026-09-16', minutes: 420, elsewhere: 0, people: ['Ada Fern'] },
  { day: '2026-09-18', minutes: 420, elsewhere: 0, people: ['Ben Moss'] },
  { day: '2026-09-23', minutes: 840, elsewhere: 0, people: ['Ada Fern', 'Ben Moss'] },
]

describe('jobs', () => {
  it('that pass every part of a filter pass all of it, and nothing said lets all through', () => {
    const none = { kind: undefined, placeId: undefined, person: undefined }
    const or = <T,>(of: readonly T[]) => fc.option(fc.constantFrom(...of), { nil: undefined })
    fc.assert(
      fc.property(
        fc.constantFrom(...jobs),
        fc.record({
          kind: or(['divide', 'weed', 'prune']),
          placeId: or([court!.id, north!.id]),
          person: or(['Ada Fern', 'Ben Moss', 'Nobody']),
        }),
        (j, filter) => {
          const parts = (Object.keys(filter) as (keyof typeof filter)[]).map((k) => ({
            ...none,
            [k]: filter[k],
          }))
          expect(passes(filter, j, workingDays)).toBe(parts.every((p) => passes(p, j, workingDays)))
          expect(passes(none, j, workingDays)).toBe(true)
        },
      ),
    )
    expect(
      jobs.filter((j) => passes({ ...none, person: 'Ada Fern' }, j, workingDays)).map((j) => j.title),
    ).toEqual([
      'Divide the irises',
      'Weed the north bed',
      // It has no day yet: it may be anybody's.
      'Mulch the court',
    ])
  })

  it('of a week begin on the Monday of any of its days', () => {
    for (let d = 14; d <= 20; d++) expect(weekFrom(`2026-09-${d}`, 1)).toBe('2026-09-14')
    expect(weekFrom('2027-01-01', 1)).toBe('2026-12-28')
    for (let d = 13; d <= 19; d++) expect(weekFrom(`2026-09-${d}`, 0)).toBe('2026-09-13')
  })
})

describe('the word in a bar', () => {
  it('stands on one tone, clear of every mark, wherever they lie', () => {
    const px = fc.integer({ min: 0, max: 400 })
    fc.assert(
      fc.property(
        fc.tuple(px, px, px, px),
        fc.array(px, { maxLength: 4 }),
        fc.integer({ min: 10, max: 60 }),
        (of, marks, wide) => {
          const [a, b, c, d] = of.toSorted((x, y) => x - y) as [number, number, number, number]
          const at = wordIn([a, b, c, d], marks, wide)
          if (!at) return
          const end = at.x + wide
          const [from, to] = at.isOnBest ? [b, c] : at.x < b ? [a, b] : [c, d]
          expect(at.x >= from && end <= to).toBe(true)
          for (const m of marks) expect(m <= at.x - 3 || m >= end + 3).toBe(true)
        },
      ),
    )
    expect(wordIn([0, 100, 200, 300], [], 60)).toEqual({ x: 3, isOnBest: false })
    expect(wordIn([0, 10, 200, 300], [], 60)).toEqual({ x: 13, isOnBest: true })
    expect(wordIn([0, 10, 20, 30], [], 60)).toBeUndefined()
  })
})

describe('the season', () => {
  let server: MockServer
  beforeEach(async () => {
    server = await MockServer.fresh()
    server.on(seasonEndpoints.read, () => ({ ...season, jobs, workingDays, rescheduled: null, leftOut: [] }))
  })
  const line = (name: RegExp) => screen.queryByRole('button', { name })

  it('shows what is asked for, says so where that is nothing, and all of it again', async () => {
    const { user } = openApp(`/g/${gardenId}/season`)
    await user.selectOptions(await screen.findByLabelText('Kind of work'), 'Weed')
    expect(line(/^Weed the north bed/)).toBeTruthy()
    expect(line(/^Divide the irises/)).toBeNull()
    expect(line(/^Mulch the court/)).toBeNull()
    await user.selectOptions(screen.getByLabelText('Place'), north!.name)
    expect(line(/^Weed the court/)).toBeNull()
    await user.selectOptions(screen.getByLabelText('Kind of work'), 'Divide')
    expect(screen.getByText('No open job is of that kind, there, on those days.')).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Show all' }))
    expect(line(/^Divide the irises/)).toBeTruthy()
    expect(line(/^Mulch the court/)).toBeTruthy()
  })

  it('is shown week by week, each day with its jobs, its people and the room there is', async () => {
    const { user } = openApp(`/g/${gardenId}/season?span=week`)
    const week = within(await screen.findByRole('region', { name: 'The week' }))
    const days = () => week.getAllByRole('listitem').map((d) => d.textContent!)
    expect(days()).toHaveLength(7)
    expect(days()[2]).toContain('45 min of 7 h; Ada Fern')
    expect(days()[2]).toContain('Divide the irises')
    expect(days()[1]).toContain('no working day')
    await user.click(week.getByRole('button', { name: 'The week after' }))
    expect(days().some((d) => d.includes('Weed the north bed') && d.includes('45 min of 14 h'))).toBe(true)
    expect(days().some((d) => d.includes('Divide the irises'))).toBe(false)
    await user.click(week.getByRole('button', { name: 'This week' }))
    expect(days()[2]).toContain('Divide the irises')
  })
})
