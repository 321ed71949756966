import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeAll, describe, expect, it } from 'vitest'
import { projectRoot } from './paths.ts'
import { border } from './test/border.ts'

const folder = mkdtempSync(join(tmpdir(), 'border-record-'))
const tags = ['W-01', 'W-02', 'W-03', 'W-04', 'W-05', 'W-06', 'W-07', 'W-08', 'W-09']
const seasons = [2021, 2022, 2023, 2024, 2025]
const looks = (rating: (tag: string, season: number) => number | '', of = seasons) =>
  writeFileSync(
    join(folder, 'observations.csv'),
    [
      'tag,date,rating,stage',
      ...of.flatMap((y) =>
        ['06-14', '07-10'].flatMap((day) =>
          tags.map((tag) => `${tag},${y}-${day},${rating(tag, y)},${tag === 'W-03' ? 'full' : ''}`),
        ),
      ),
    ].join('\n'),
  )
const record = async (...more: string[]) => {
  const { status, stdout, stderr } = await border('record', folder, '--on', '2026-03-01', ...more)
  return {
    status,
    stderr,
    stdout,
    found: status === 0 && more.includes('--json') ? JSON.parse(stdout) : undefined,
  }
}

beforeAll(() => {
  cpSync(join(projectRoot, 'examples', 'walled-court'), folder, { recursive: true })
  const plantings = join(folder, 'plantings.csv')
  // All of them settled long ago.
  writeFileSync(plantings, readFileSync(plantings, 'utf8').replace(/20\d\d(-\d\d-\d\d)/g, '2015$1'))
})

describe('border record', () => {
  it('tells the failing plant, the poor year and the decline that were written into the looks', async () => {
    looks((tag, y) => {
      if (tag === 'W-02') return 1
      if (tag === 'W-07') return Math.max(1, 5 - (y - 2021))
      return y === 2023 ? 3 : 5
    })
    const { found } = await record('--json')
    expect(found.seasons).toEqual(seasons)
    const years = found.model.years.map((y: { season: number; estimate: number }) => [y.estimate, y.season])
    expect(Math.min(...years.map(([e]: number[]) => e))).toBe(
      years.find(([, season]: number[]) => season === 2023)[0],
    )
    // The daffodil is at rest when it was looked at: nothing is expected of it.
    const expected = new Map<string, number | undefined>(
      found.plantings.map((p: { tag: string; expected: { score: number } | null }) => [
        p.tag,
        p.expected?.score,
      ]),
    )
    const told = [...expected].filter((e): e is [string, number] => e[1] !== undefined)
    expect(told.sort((a, b) => a[1] - b[1])[0]![0]).toBe('W-02')
    expect(expected.get('W-06')).toBeUndefined()
    const declines = found.plantings.filter((p: { decline: unknown }) => p.decline)
    expect(declines.map((p: { tag: string }) => p.tag)).toEqual(['W-07'])
    const bloom = found.bloom.seen.map((b: { tag: string; season: number }) => [b.tag, b.season])
    expect([found.bloom.season, bloom]).toEqual([2025, [['W-03', 2025]]])
  })

  it('says what cannot be told apart, and gives no share of it', async () => {
    looks((tag) => (tag === 'W-02' ? 2 : 4), [2025])
    const { found } = await record('--json', '--season', '2025')
    if (found.model === null) return expect(found.plantings).toHaveLength(9)
    expect(found.model.untold).toContainEqual({ sources: ['year'], why: 'single' })
    for (const { share, low, high } of found.model.shares)
      expect(share === null || high - low <= 0.5).toBe(true)
  })

  it('is the same in words, and the same each time', async () => {
    looks((_, y) => (y === 2023 ? 3 : 5))
    const { stdout } = await record()
    expect(stdout).toMatch(/^tag,taxon,place,2021,2022,2023,2024,2025,expected_from,expected_to/)
    expect(stdout).not.toMatch(/NaN|undefined/)
    expect((await record()).stdout).toBe(stdout)
  })

  it('refuses looks with a fault, with where it is', async () => {
    looks((tag) => (tag === 'W-02' ? ('x' as never) : 4), [2025])
    const { status, stderr } = await record('--json')
    expect(status).toBe(1)
    expect(stderr).toContain('observations.csv, line 3, column rating')
    expect((await border('record')).status).toBe(2)
    looks(() => 4)
    expect((await record('--season', '2025.5')).stderr).toContain('--season: 2025.5 is not a year like 2026')
  })
})
