import { roles, type Role } from '@border/contract'
import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { insertPractice } from '../store/people.ts'
import { Client, practiceWithGarden, type TestPractice } from './practice.ts'

let practice: TestPractice
const people = new Map<string, Client>()

beforeAll(async () => {
  practice = await practiceWithGarden()
  const elsewhere = await insertPractice(practice.db, 'Another practice')
  people.set('anonymous', new Client(practice.app))
  people.set('stranger', await practice.join('stranger', null, elsewhere))
  people.set('colleague of no garden', await practice.join('colleague', null))
  for (const role of roles) people.set(role, await practice.join(role === 'head' ? 'second' : role, role))
  await people.get('anonymous')!.open()
})
afterAll(() => practice.stop())

const endpoints = () => practice.routes.map((r) => r.endpoint)
const gardenRoutes = () => endpoints().filter((r) => typeof r.access === 'object')

async function statusOf(client: Client, method: 'get' | 'post', path: string): Promise<number> {
  const url = path.replace(':gardenId', practice.gardenId).replace(/:\w+/g, randomUUID())
  return (await (method === 'get' ? client.get(url) : client.post(url))).status
}

describe('who may use which route', () => {
  it('finds many routes to walk', () => {
    expect(gardenRoutes().length).toBeGreaterThan(15)
  })

  it.each(['anonymous', 'stranger', 'colleague of no garden'])(
    '%s sees no garden by any route',
    async (who) => {
      for (const r of gardenRoutes())
        expect([`${r.method} ${r.path}`, await statusOf(people.get(who)!, r.method, r.path)]).toEqual([
          `${r.method} ${r.path}`,
          who === 'anonymous' ? 401 : 404,
        ])
    },
  )

  it.each(roles)('a %s is let through to what the role allows and refused the rest', async (who: Role) => {
    for (const r of gardenRoutes()) {
      const needed = (r.access as { garden: Role }).garden
      const allowed = roles.indexOf(who) <= roles.indexOf(needed)
      const status = await statusOf(people.get(who)!, r.method, r.path)
      expect([r.path, allowed, status === 403, status === 401]).toEqual([r.path, allowed, !allowed, false])
      expect([r.path, status < 500]).toEqual([r.path, true])
    }
  })

  it('lets nobody who is not signed in past any other route but those of signing in', async () => {
    const open = endpoints()
      .filter((r) => r.access === 'anyone')
      .map((r) => r.path)
    expect(open.sort()).toEqual([
      '/calendar/:token',
      '/session',
      '/session/demo',
      '/session/first-account',
      '/session/sign-in',
    ])
    for (const r of endpoints().filter((r) => r.access === 'signed in' || r.access === 'leads practice'))
      expect([r.path, await statusOf(people.get('anonymous')!, r.method, r.path)]).toEqual([r.path, 401])
  })

  it('lists only one’s own gardens, and gardens only for those who lead', async () => {
    expect((await people.get('stranger')!.get('/gardens')).body).toEqual([])
    expect((await people.get('keeper')!.get('/gardens')).body).toHaveLength(1)
    const garden = { name: 'x', latitude: 1, longitude: 1, timeZone: 'UTC' }
    expect((await people.get('keeper')!.post('/gardens', garden)).status).toBe(403)
    expect((await practice.head.post('/gardens', { ...garden, timeZone: 'Mars/Olympus' })).status).toBe(422)
  })

  it('refuses every change without the page’s token, and every write without a key', async () => {
    for (const r of endpoints().filter((r) => r.method === 'post')) {
      const url = r.path.replace(':gardenId', practice.gardenId).replace(/:\w+/g, randomUUID())
      expect([r.path, (await practice.head.post(url, {}, { token: 'guessed' })).status]).toEqual([
        r.path,
        403,
      ])
    }
    const note = `/gardens/${practice.gardenId}/crew/days`
    const body = { day: '2026-09-14', minutes: 0 }
    expect((await practice.head.post(note, body, { key: null })).status).toBe(400)
  })
})

describe('signing in', () => {
  let practice: TestPractice
  beforeAll(async () => {
    practice = await practiceWithGarden()
  })
  afterAll(() => practice.stop())

  it('makes the first account only once, and shuts out a session that signed out', async () => {
    const late = new Client(practice.app)
    expect((await late.open()).needsFirstAccount).toBe(false)
    const account = {
      practiceName: 'p',
      name: 'n',
      email: 'n@example.invalid',
      password: 'long enough to do',
    }
    expect((await late.post('/session/first-account', account)).status).toBe(409)
    const leaving = await practice.join('leaving', 'keeper')
    expect((await leaving.get('/gardens')).status).toBe(200)
    await leaving.post('/session/sign-out')
    expect((await leaving.get('/gardens')).status).toBe(401)
  })

  it('answers a wrong password and an unknown address alike, and stops after five tries', async () => {
    const guesser = new Client(practice.app)
    const wrong = await guesser.signIn('head@example.invalid', 'not this one')
    const unknown = await guesser.signIn('nobody@example.invalid', 'not this one')
    expect([wrong.status, wrong.body.error]).toEqual([401, unknown.body.error])
    for (let i = 0; i < 3; i++) await guesser.signIn('head@example.invalid', 'not this one')
    expect((await guesser.signIn('head@example.invalid')).status).toBe(429)
  })

  it('sends a strict content policy and keeps the cookie from scripts and other sites', async () => {
    const { headers } = await new Client(practice.app).get('/session')
    expect(headers['content-security-policy']).toMatch(/default-src 'self'.*object-src 'none'/)
    expect(headers['content-security-policy']).not.toMatch(/unsafe/)
    expect(String(headers['set-cookie'])).toMatch(/HttpOnly; SameSite=Strict/)
  })
})
