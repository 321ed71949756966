import { addDays } from '@border/core'
import { composeApp, insertPerson, insertPractice, migrate, type Db } from '@border/server'
import type { AddressInfo } from 'node:net'
import { scratchDatabase } from '../src/databases.ts'
import { Client } from '../src/client.ts'
import { lookAtAll, saveMadeUp, TODAY } from './gardens.ts'

/**
 * How quick the server stays: one garden of 2,000 plantings with 100,000 looks at them, asked over the wire. Prints how long all
 * of its verdicts take when nothing of them is kept, and how long another garden's take meanwhile; the median and the slowest of
 * ten answers of each list, and the plans of the queries they rest on.
 */
const PLANTINGS = 2000
/** `LOOKS=20000` for a younger garden. */
const LOOKS = Number(process.env.LOOKS ?? 100_000)
/** Gardens of 40 plantings each. */
const SMALL = 5
const LIMIT_MS = 200
const COLD_LIMIT_MS = 5000
const say = (text = '') => process.stdout.write(`${text}\n`)

/** @returns the large garden, and others beside it, none of them ever worked out */
async function seed(db: Db): Promise<{ gardenId: string; small: string[] }> {
  const practiceId = await insertPractice(db, 'Bench', TODAY)
  const personId = await insertPerson(db, {
    practiceId,
    name: 'Bench',
    email: 'bench@example.invalid',
    passwordHash: null,
    isDemo: true,
    leads: true,
  })
  const owner = { practiceId, personId }
  const { gardenId, plantingIds } = await saveMadeUp(db, owner, 'Large garden', PLANTINGS)
  await lookAtAll(db, { gardenId, personId }, plantingIds, LOOKS / PLANTINGS)
  const small: string[] = []
  for (let i = 0; i < SMALL; i++)
    small.push((await saveMadeUp(db, owner, `Small garden ${i + 1}`, 40)).gardenId)
  await db.raw('analyze')
  return { gardenId, small }
}

async function main(): Promise<void> {
  const { url, drop } = await scratchDatabase()
  const running = composeApp({ databaseUrl: url, sessionSecret: 'bench', secureCookies: false })
  try {
    await migrate(running.db)
    const start = performance.now()
    const { gardenId, small } = await seed(running.db)
    say(
      `${PLANTINGS} plantings, ${LOOKS} looks, seeded in ${((performance.now() - start) / 1000).toFixed(0)} s`,
    )
    const listening = running.app.listen(0, '127.0.0.1')
    await new Promise((resolve) => listening.once('listening', resolve))
    const client = await Client.enter(`http://127.0.0.1:${(listening.address() as AddressInfo).port}`)
    const slow = [...(await timeCold(client, gardenId, small)), ...(await timeAll(client, gardenId))]
    await plans(running.db, gardenId)
    listening.close()
    if (slow.length > 0) {
      say(`slower than they may be: ${slow.join(', ')}`)
      process.exitCode = 1
    }
  } finally {
    await running.close()
    await drop()
  }
}

/** @returns what took longer than it may */
async function timeCold(client: Client, gardenId: string, small: string[]): Promise<string[]> {
  const verdicts = async (id: string, on = TODAY) => {
    const start = performance.now()
    await client.sizeOf(`/gardens/${id}/assessment?on=${on}`)
    return performance.now() - start
  }
  // A garden looked at before: the server, not the garden, is warm.
  const alone = await verdicts(small[0]!)
  const took = await verdicts(gardenId)
  // Of another day: of that nothing is kept but what is known of the plantings.
  const again = verdicts(gardenId, addDays(TODAY, 1))
  const beside: number[] = []
  for (const id of small.slice(1)) beside.push(await verdicts(id))
  const busy = await again
  const ms = (v: number) => `${v.toFixed(0)} ms`
  say(
    `all verdicts of ${PLANTINGS} plantings, nothing kept: ${ms(took)}; of the day after, beside others: ${ms(busy)}`,
  )
  say(`those of a garden of 40, before it ${ms(alone)}; meanwhile ${beside.map(ms).join(', ')}`)
  return [
    ...(took > COLD_LIMIT_MS ? [`all verdicts over ${COLD_LIMIT_MS} ms`] : []),
    ...(Math.max(...beside) > COLD_LIMIT_MS ? ['another garden meanwhile'] : []),
  ]
}

/** @returns the lists whose median is over the limit */
async function timeAll(client: Client, gardenId: string): Promise<string[]> {
  const slow: string[] = []
  say('answer                         size     first     median    slowest of ten')
  for (const [name, path, counts] of [
    ['the garden and its plantings', '', true],
    ['the record', '/record', true],
    ['bloom of a season', '/bloom?season=2025', true],
    ['a season of looks as a file', '/observations.csv?from=2026-01-01', false],
    ['signs and causes', '/diagnosis', true],
    ['the walk', '/walk', true],
  ] as const) {
    const times: number[] = []
    let size = 0
    for (let i = 0; i < 11; i++) {
      const start = performance.now()
      size = await client.sizeOf(`/gardens/${gardenId}${path}`)
      times.push(performance.now() - start)
    }
    const [first, ...rest] = times
    rest.sort((a, b) => a - b)
    const ms = (v: number) => `${v.toFixed(0)} ms`.padStart(9)
    say(
      `${name.padEnd(28)} ${`${(size / 1e6).toFixed(1)} MB`.padStart(7)} ${ms(first!)} ${ms(rest[5]!)} ${ms(rest.at(-1)!)}`,
    )
    if (counts && rest[5]! > LIMIT_MS) slow.push(name)
  }
  return slow
}

/** What the database does for the lists, so that a lost index is seen. */
async function plans(db: Db, gardenId: string): Promise<void> {
  const asked: [string, string][] = [
    [
      'latest count of each planting',
      `select p.id, c.living from plantings p left join lateral (
         select living from observations o
         where o.planting_id = p.id and o.withdrawn_at is null and o.living is not null
         order by o.on_date desc, o.created_at desc limit 1
       ) c on true where p.garden_id = '${gardenId}'`,
    ],
    [
      'latest look at each planting',
      `select o.id from plantings p join lateral (
         select id from observations o where o.planting_id = p.id and o.withdrawn_at is null and o.on_date <= '${TODAY}'
         order by o.on_date desc, o.created_at desc limit 1
       ) o on true where p.garden_id = '${gardenId}'`,
    ],
    [
      'looks of the last months',
      `select * from observations where garden_id = '${gardenId}' and withdrawn_at is null
         and on_date between '2026-05-17' and '${TODAY}' order by on_date, created_at`,
    ],
  ]
  for (const [name, sql] of asked) {
    const { rows } = await db.raw(`explain (analyze, costs off, timing off, summary on) ${sql}`)
    say(`\n${name}`)
    for (const r of rows) say(`  ${r['QUERY PLAN']}`)
  }
}

await main()
