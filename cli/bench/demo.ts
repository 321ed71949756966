/**
 * How long people wait in the demo's largest garden, and what others wait for: after one change of each kind, the first assessment
 * by time and by queries, and how long the change held its crew. Run with `npm run bench:demo -w cli`.
 */
import type { AssessmentView, GardenView } from '@border/contract'
import { loadDemo } from '@border/demo'
import { composeApp, connect, migrate } from '@border/server'
import { randomUUID } from 'node:crypto'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { scratchDatabase } from '../src/databases.ts'
import { Client } from '../src/client.ts'

const LOOK_EVERY_MS = 1
const { url, drop } = await scratchDatabase()
const db = connect(url, 4)
await migrate(db)
await loadDemo(db, () => {})
const app = composeApp({ databaseUrl: url, sessionSecret: 'bench', secureCookies: false })
let queries = 0
app.db.on('query', () => queries++)
const server = createServer(app.app).listen(0, '127.0.0.1')
const address = await new Promise<string>((resolve) =>
  server.once('listening', () => resolve(`http://127.0.0.1:${(server.address() as AddressInfo).port}`)),
)

const client = await Client.enter(address)
const gardens = await client.ask<{ id: string; name: string }[]>('/gardens')
const views = await Promise.all(gardens.map((g) => client.ask<GardenView>(`/gardens/${g.id}`)))
const view = views.reduce((a, b) => (b.plantings.length > a.plantings.length ? b : a))
const at = `/gardens/${view.garden.id}`
const assess = () => client.ask<AssessmentView>(`${at}/assessment`)

/** The longest stretch for which the garden's crew was held while something went on, milliseconds. */
async function heldDuring(work: () => Promise<unknown>): Promise<number> {
  const { crew_id: crewId } = await db('gardens').where({ id: view.garden.id }).first('crew_id')
  let isOn = true
  let longest = 0
  const watch = (async () => {
    let since: number | undefined
    while (isOn) {
      const { rows } = await db.raw('select 1 from crews where id = ? for no key update skip locked', [
        crewId,
      ])
      const now = performance.now()
      if (rows.length > 0) since = undefined
      else {
        since ??= now
        longest = Math.max(longest, now - since)
      }
      await new Promise((r) => setTimeout(r, LOOK_EVERY_MS))
    }
  })()
  await work()
  isOn = false
  await watch
  return longest
}

const today = '2026-09-14'
// The first work of the rules is made once, not by what is measured.
await client.ask(`${at}/crew/days`, { day: '2026-12-31', minutes: 0 })
const first = await assess()
const move = first.assessments.find((a) => a.verdict.action === 'move' && a.verdict.spots.length > 0)!
const others = first.assessments.filter((a) => a.plantingId !== move.plantingId)
const [tree, ...otherTrees] = view.features.filter((f) => f.kind === 'tree' && !f.to)
const look = (plantingId: string) => ({
  entries: [
    { kind: 'planting', id: randomUUID(), on: today, at: `${today}T10:00:00Z`, plantingId, rating: 2 },
  ],
})
// A server that has been at work for a while: what its threads compile on their way is compiled.
for (const [k, other] of otherTrees.slice(0, 4).entries()) {
  await client.ask(`${at}/features/${other.id}/end`, { to: `2026-09-0${k + 1}` })
  await client.ask(`${at}/walk-entries`, look(others[10 + k]!.plantingId))
  await assess()
}
const bed = view.features.find((f) => f.kind === 'bed')!
const like = view.plantings.find((p) => p.placeId === bed.id)!
const changes: [string, () => Promise<unknown>][] = [
  [
    'a move is decided',
    () => client.ask(`${at}/decisions`, { plantingId: move.plantingId, on: today, choice: 'accept' }),
  ],
  [
    'a removal is decided',
    () =>
      client.ask(`${at}/decisions`, {
        plantingId: others[1]!.plantingId,
        on: today,
        choice: 'otherwise',
        action: 'remove',
        reason: 'bench',
      }),
  ],
  ['a look is noted', () => client.ask(`${at}/walk-entries`, look(others[2]!.plantingId))],
  ['a tree is felled', () => client.ask(`${at}/features/${tree!.id}/end`, { to: today })],
  [
    'a decision just after a felling',
    async () => {
      await client.ask(`${at}/features/${tree!.id}/end`, { to: '2026-09-13' })
      await client.ask(`${at}/decisions`, {
        plantingId: others[3]!.plantingId,
        on: today,
        choice: 'otherwise',
        action: 'keep',
        reason: 'bench',
      })
    },
  ],
  [
    'something is planted',
    () =>
      client.ask(`${at}/plantings`, {
        tag: 'BENCH-1',
        taxonBotanical: like.taxon.botanical,
        placeId: bed.id,
        count: 3,
        plantedOn: today,
        source: 'bought',
        x: like.x,
        y: like.y,
      }),
  ],
  ['a rule is switched off', () => client.ask(`${at}/rules/mulch-beds`, { isOn: false }).catch(() => {})],
]
process.stdout.write(
  `${view.garden.name}: ${view.plantings.length} plantings\n\n| after | the change took | held its crew | first assessment | queries |\n|---|---|---|---|---|\n`,
)
for (const [what, change] of changes) {
  const began = performance.now()
  const held = await heldDuring(change)
  const took = performance.now() - began
  queries = 0
  const asked = performance.now()
  await assess()
  process.stdout.write(
    `| ${what} | ${Math.round(took)} ms | ${Math.round(held)} ms | ${Math.round(performance.now() - asked)} ms | ${queries} |\n`,
  )
}
server.close()
await app.close()
await db.destroy()
await drop()
