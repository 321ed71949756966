import { addressOf, endpoints, type Endpoint, type GardenSummary, type SessionInfo } from '@border/contract'
import { isInside, readPlan, sceneOf, sunHours, type Point, type Scene } from '@border/core'
import { composeApp, connect, migrate } from '@border/server'
import { randomBytes } from 'node:crypto'
import { once } from 'node:events'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { filesOf, placedIn } from './files.ts'
import { cliffLane } from './gardens/cliffLane.ts'
import { netmakersYard } from './gardens/netmakersYard.ts'
import { demoGardens, loadDemo } from './load.ts'

function sceneIn(sketch: (typeof demoGardens)[number]): Scene {
  const plan = readPlan(filesOf(sketch).plan)
  if (!plan.ok) throw new Error(JSON.stringify(plan.problems))
  return sceneOf(
    plan.value.garden,
    plan.value.features.map((f, i) => ({ ...f, id: String(i) })),
  )
}

const seasonAt = (scene: Scene, [x, y]: Point, on: string) =>
  sunHours(scene, [{ x, y, z: 0 }], { kind: 'season', on })[0]!

describe('the demo’s gardens', () => {
  const all = demoGardens.flatMap((g) => placedIn(g).map((p) => ({ ...p, sketch: g })))

  it('hold about 140 plantings of about 90 taxa, each in its bed or pot', () => {
    expect(all.length).toBeGreaterThanOrEqual(135)
    expect(new Set(all.map((p) => p.planting[0])).size).toBeGreaterThanOrEqual(85)
    for (const p of all) {
      const place = p.sketch.features.find((f) => f.properties.name === p.place)!
      const { coordinates } = place.geometry as { coordinates: Point[][] }
      if (p.at) expect([p.tag, isInside(coordinates[0]!.slice(0, -1), ...p.at)]).toEqual([p.tag, true])
    }
  })

  it('open the courtyard border to the afternoon when the storehouse goes', () => {
    const scene = sceneIn(netmakersYard)
    const rodgersia = placedIn(netmakersYard).find((p) => p.planting[0] === 'Rodgersia podophylla')!.at!
    const before = seasonAt(scene, rodgersia, '2024-07-01')
    const after = seasonAt(scene, rodgersia, '2026-07-01')
    expect(before.total).toBeLessThan(4)
    expect(after.total).toBeGreaterThan(6)
    expect(after.afternoon - before.afternoon).toBeGreaterThan(1)
  })

  it('close the slipway bed in under the alders, year by year', () => {
    const scene = sceneIn(netmakersYard)
    const hours = ['2021', '2023', '2025', '2027', '2029'].map(
      (y) => seasonAt(scene, [33, -5.8], `${y}-07-01`).total,
    )
    for (let i = 1; i < hours.length; i++) expect(hours[i]!).toBeLessThan(hours[i - 1]!)
  })

  it('leave the lowered cypress off the plan and in the notes', () => {
    const hedge = netmakersYard.features.find((f) => f.properties.kind === 'hedge')!
    expect(hedge.properties.events).toBeUndefined()
    expect(netmakersYard.unrecorded[0]!.feature).toBe(hedge.properties.name)
    expect(netmakersYard.notes.some((n) => /plan says the cypress/.test(n.says))).toBe(true)
    expect(cliffLane.unrecorded).toEqual([])
  })
})

describe('loading', () => {
  const name = `border_test_${randomBytes(6).toString('hex')}`
  const admin = () => connect(process.env.BORDER_ADMIN_URL!, 1)
  let app: ReturnType<typeof composeApp>
  beforeAll(async () => {
    const db = admin()
    await db.raw(`create database ${name}`)
    await db.destroy()
    const url = new URL(process.env.BORDER_ADMIN_URL!)
    url.pathname = `/${name}`
    app = composeApp({
      databaseUrl: url.href,
      sessionSecret: 'test',
      secureCookies: false,
      checksAnswers: true,
    })
    await migrate(app.db)
  })
  afterAll(async () => {
    await app.close()
    const db = admin()
    await db.raw(`drop database ${name} with (force)`)
    await db.destroy()
  })

  it('gives five seasons of history, and twice gives it once', async () => {
    const counts = async () => {
      const { rows } = await app.db.raw(`
        select (select count(*)::int from gardens) as gardens, (select count(*)::int from plantings) as plantings,
               (select count(distinct extract(year from on_date))::int from observations) as seasons,
               (select count(*)::int from observations) as looks,
               (select count(*)::int from photos) as photos`)
      return rows[0]
    }
    await loadDemo(app.db, () => {})
    const first = await counts()
    expect(first).toMatchObject({ gardens: 3, seasons: 5 })
    expect(first.looks).toBeGreaterThan(1200)
    expect(first.photos).toBe(16)
    await loadDemo(app.db, () => {})
    expect(await counts()).toEqual(first)
  })

  it('shows every screen of every garden what the contract says, to the last figure', async () => {
    const server = app.app.listen(0, '127.0.0.1')
    await once(server, 'listening')
    const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
    let cookie = ''
    const ask = async <T>(path: string, body?: object, token = ''): Promise<{ status: number; body: T }> => {
      const answer = await fetch(base + path, {
        method: body ? 'POST' : 'GET',
        headers: { cookie, 'x-csrf-token': token, 'content-type': 'application/json' },
        body: body && JSON.stringify(body),
      })
      const sent = answer.headers.getSetCookie()
      if (sent.length > 0) cookie = sent.map((c) => c.split(';')[0]).join('; ')
      return { status: answer.status, body: (await answer.json()) as T }
    }
    const { csrfToken, demoPeople } = (await ask<SessionInfo>('/api/session')).body
    await ask('/api/session/demo', { personId: demoPeople[0]!.id }, csrfToken)
    const told = Object.values(endpoints)
      .flatMap((area) => Object.values<Endpoint>(area))
      .filter((e) => e.method === 'get' && !e.sends && /:/.test(e.path) && !/:(?!gardenId)/.test(e.path))
    expect(told.length).toBeGreaterThan(20)
    for (const { id, name } of (await ask<GardenSummary[]>('/api/gardens')).body)
      for (const { path } of told) {
        const { status } = await ask(`/api${addressOf(path, { gardenId: id })}`)
        expect([name, path, status]).toEqual([name, path, 200])
      }
    server.close()
  })
})
