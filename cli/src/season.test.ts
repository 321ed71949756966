import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { projectRoot } from './paths.ts'
import { border } from './test/border.ts'

const folder = mkdtempSync(join(tmpdir(), 'border-season-'))
const file = (name: string, content: unknown) => {
  const path = join(folder, name)
  writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content))
  return path
}

describe('border rules', () => {
  const court = join(projectRoot, 'examples', 'walled-court')
  const explain = (taxon: string, ...more: string[]) =>
    border('rules', 'explain', '--taxon', taxon, '--garden', court, '--on', '2026-09-14', '--json', ...more)

  it('explains the windows of a kind, found by a name with a typo', async () => {
    const { status, stdout } = await explain('panicle hydrangia')
    expect(status).toBe(0)
    const answer = JSON.parse(stdout)
    expect(answer.taxon.botanical).toBe('Hydrangea paniculata')
    const prune = answer.rules.find((r: { id: string }) => r.id === 'prune-panicle-hydrangea')
    const [w] = prune.windows
    expect([w.earliest, w.bestFrom, w.bestTo, w.latest]).toEqual(
      [w.earliest, w.bestFrom, w.bestTo, w.latest].sort(),
    )
    expect(['02', '03']).toContain(w.bestFrom.slice(5, 7))
    expect(w.why.latest).toMatch(/^Not after .+: .+\.$/)
  })

  it('turns with the hemisphere, by a plan alone', async () => {
    const garden = {
      version: 1,
      name: 'South',
      latitude: -38,
      longitude: 145,
      timeZone: 'Australia/Melbourne',
      coordinates: 'local-metres',
      northDeg: 0,
    }
    const plan = file('south.geojson', { type: 'FeatureCollection', garden, features: [] })
    const { stdout } = await border(
      'rules',
      'explain',
      '--taxon',
      'Rosa Bush group',
      '--garden',
      plan,
      '--on',
      '2026-03-01',
      '--json',
    )
    const prune = JSON.parse(stdout).rules.find((r: { id: string }) => r.id === 'prune-bush-roses')
    expect(['07', '08']).toContain(prune.windows[0].bestFrom.slice(5, 7))
  })

  it('says what it does not know', async () => {
    expect(await explain('Xyzzy plugh')).toMatchObject({ status: 1, stdout: '' })
    expect((await explain('Rosa Bush group', '--school', 'cutting-back=never')).stderr).toContain(
      'late-winter or autumn',
    )
    expect((await border('rules')).status).toBe(2)
  })
})

describe('border schedule', () => {
  const window = {
    earliest: '2026-03-02',
    bestFrom: '2026-03-09',
    bestTo: '2026-03-13',
    latest: '2026-03-20',
  }
  const season = {
    version: 1,
    gardens: [{ id: 'court', travelMinutes: 20 }],
    shifts: ['2026-03-04', '2026-03-11', '2026-03-18'].map((day) => ({
      day,
      people: [{ id: 'ada', minutes: 140, skills: ['pruning'] }],
    })),
    jobs: [
      {
        id: 'lift',
        gardenId: 'court',
        operation: 'move',
        minutes: 60,
        ...window,
        after: [{ id: 'dig', leastDays: 0, mostDays: 7 }],
      },
      { id: 'dig', gardenId: 'court', operation: 'prepare', minutes: 60, ...window },
      { id: 'roses', gardenId: 'court', operation: 'prune', minutes: 120, skill: 'pruning', ...window },
    ],
  }

  it('plans a file, the same each time, with its reasons', async () => {
    const path = file('season.json', season)
    const { status, stdout } = await border('schedule', path, '--json')
    expect(status).toBe(0)
    const plan = JSON.parse(stdout)
    const day = (id: string) => plan.placed.find((p: { id: string }) => p.id === id).parts[0].day
    // Two hours and twenty minutes on the way fill a day: either the roses or the move have the best one.
    expect(day('dig') <= day('lift')).toBe(true)
    expect(new Set([day('roses'), day('lift')])).toContain('2026-03-11')
    expect(plan.why.roses.chosen.terms[0].says).toBeTruthy()
    expect((await border('schedule', path, '--json')).stdout).toBe(stdout)
  })

  it('refuses a bad file whole, each fault with its place', async () => {
    const [lift, dig] = season.jobs
    const bad = file('bad.json', {
      ...season,
      jobs: [
        { ...lift, bestTo: '2026-03-30' },
        { ...dig, gardenId: 'yard' },
      ],
    })
    const { status, stdout, stderr } = await border('schedule', bad)
    expect([status, stdout]).toEqual([1, ''])
    expect(stderr).toContain('jobs.0 (lift): earliest, bestFrom, bestTo and latest are not in order')
    expect(stderr).toContain('jobs.1 (dig): there is no garden yard')
    expect((await border('schedule', file('no.json', '{'))).stderr).toContain('is not JSON')
    expect((await border('schedule')).status).toBe(2)
  })
})
