import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { projectRoot } from './paths.ts'
import { verdictsCommand } from './verdicts.ts'

const example = join(projectRoot, 'examples', 'walled-court')

interface Told {
  plantings: {
    tag: string
    signs: string[]
    verdict: { action: string; remedies: { action: string; window: unknown }[] }
  }[]
  places: { name: string }[]
  jobs: { title: string; tags: string[]; window: { earliest: string; latest: string } }[]
}

/** The example, with these looks at it. */
function folderWith(looks: readonly string[]): string {
  const folder = mkdtempSync(join(tmpdir(), 'border-verdicts-'))
  cpSync(example, folder, { recursive: true })
  writeFileSync(join(folder, 'observations.csv'), ['tag,date,rating,signs', ...looks, ''].join('\n'))
  return folder
}
const told = async (folder: string, ...more: string[]) =>
  JSON.parse(await verdictsCommand([folder, '--on', '2025-06-20', '--json', ...more])) as Told

it('tells of every planting what is proposed, of what was seen what is done, and of the year its work', async () => {
  const tags = readFileSync(join(example, 'plantings.csv'), 'utf8')
    .trim()
    .split('\n')
    .slice(1)
    .map((line) => line.split(',')[0]!)
  const [first] = tags
  const plain = await told(example)
  expect(plain.plantings.map((p) => p.tag).sort()).toEqual([...tags].sort())
  expect(plain.places.length).toBe(3)
  expect(plain.jobs.length).toBeGreaterThan(10)
  for (const { window } of plain.jobs) expect(window.latest >= window.earliest).toBe(true)

  const seen = await told(folderWith([`${first},2025-06-15,3,buried;chewed`]))
  const of = (t: Told) => t.plantings.find((p) => p.tag === first)!
  expect(of(plain).signs).toEqual([])
  expect(of(seen).signs.sort()).toEqual(['buried', 'chewed'])
  const offered = of(seen).verdict.remedies.find((r) => r.action === 'lift and replant')
  expect(offered).toBeTruthy()
  expect(offered!.window).not.toBeNull()
  // What was seen of one moves no other.
  const others = (t: Told) => t.plantings.filter((p) => p.tag !== first).map((p) => [p.tag, p.verdict.action])
  expect(others(seen).sort()).toEqual(others(plain).sort())
})

it('names what is wrong with the files, and where', async () => {
  const folder = folderWith(['no-such-tag,2025-06-15,3,'])
  await expect(told(folder)).rejects.toMatchObject({
    lines: [expect.stringMatching(/observations\.csv.*no-such-tag/)],
  })
  await expect(verdictsCommand([])).rejects.toThrow('verdicts takes one folder')
  await expect(verdictsCommand([example, '--on', '20250620'])).rejects.toMatchObject({
    lines: [expect.stringContaining('--on')],
  })
})
