import { roles, USUAL_PREFERENCES, type Role } from '@border/contract'
import { randomUUID } from 'node:crypto'
import request from 'supertest'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { composeApp, type RunningApp } from '../app.ts'
import { hashPassword } from '../routes/session.ts'
import { insertPerson, insertPractice } from '../store/people.ts'
import { Client, PASSWORD, practiceWithGarden, type TestPractice } from './practice.ts'

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
      '/looks/:token',
      '/looks/:token/paper.pdf',
      '/looks/:token/plan.svg',
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

  it('keeps nothing of who only looks, and a token for them all the same', async () => {
    const sessions = async () => Number((await practice.db('session').count('* as n').first())!.n)
    const before = await sessions()
    const visitor = new Client(practice.app)
    const first = await visitor.open()
    for (let i = 0; i < 5; i++) expect((await visitor.open()).csrfToken).toBe(first.csrfToken)
    expect((await new Client(practice.app).open()).csrfToken).not.toBe(first.csrfToken)
    expect(await sessions()).toBe(before)
    const signedIn = await visitor.signIn('head@example.invalid')
    expect(signedIn.status).toBe(200)
    expect(signedIn.body.csrfToken).not.toBe(first.csrfToken)
    expect(await sessions()).toBe(before + 1)
    // What a page knew before it was signed in is worth nothing after it.
    const stale = await visitor.post('/session/clock', { useRealToday: true }, { token: first.csrfToken })
    expect(stale.status).toBe(403)
  })

  it('lets who belongs to two practices sign in to each, and tells neither of the other', async () => {
    const other = await insertPractice(practice.db, 'Another practice')
    await insertPerson(practice.db, {
      practiceId: other,
      name: 'Elsewhere',
      email: 'Both@Example.invalid',
      passwordHash: await hashPassword('the other password'),
    })
    const here = { name: 'Here', email: 'both@example.invalid', password: PASSWORD, role: 'crew' }
    const people = `/gardens/${practice.gardenId}/people`
    expect((await practice.head.post(people, here)).status).toBe(200)
    const nameOf = async (password: string) =>
      (await new Client(practice.app).signIn('BOTH@example.invalid', password)).body.person?.name
    expect([
      await nameOf(PASSWORD),
      await nameOf('the other password'),
      await nameOf('neither of them'),
    ]).toEqual(['Here', 'Elsewhere', undefined])
  })

  it('keeps how each wants things called for them alone, and refuses what there is not', async () => {
    const names = async (client: Client) => (await client.open()).person!.preferences.names
    const other = people.get('keeper')!
    expect([await names(practice.head), await names(other)]).toEqual(['botanical first', 'botanical first'])
    const said = await practice.head.post('/session/preferences', { names: 'common' })
    expect(said.body.person.preferences).toEqual({ ...USUAL_PREFERENCES, names: 'common' })
    // What is said of one leaves the others as they were.
    const inFeet = await practice.head.post('/session/preferences', { length: 'feet and inches' })
    expect(inFeet.body.person.preferences).toMatchObject({ names: 'common', length: 'feet and inches' })
    expect((await practice.head.post('/session/preferences', { length: 'ells' })).status).toBe(422)
    expect([await names(practice.head), await names(other)]).toEqual(['common', 'botanical first'])
    expect((await practice.head.post('/session/preferences', { names: 'by heart' })).status).toBe(422)
    expect(await names(practice.head)).toBe('common')
  })

  it('lets a head gardener change roles, but not of who leads the practice', async () => {
    const people = `/gardens/${practice.gardenId}/people`
    const deputy = await practice.join('deputy', 'head')
    const roleFor = (email: string, role: string) =>
      deputy.post(people, { name: 'x', email, password: 'a long enough one', role })
    const refused = await roleFor('head@example.invalid', 'keeper')
    expect([refused.status, refused.body.error]).toEqual([
      403,
      'head leads the practice: only someone who leads it too may change that role.',
    ])
    expect((await practice.head.get(`/gardens/${practice.gardenId}/people`)).status).toBe(200)
    expect((await roleFor('deputy@example.invalid', 'keeper')).status).toBe(409)
    await practice.join('helper', 'crew')
    expect((await roleFor('helper@example.invalid', 'keeper')).status).toBe(200)
  })

  it('sends a strict content policy and keeps the cookie from scripts and other sites', async () => {
    const { headers } = await new Client(practice.app).get('/session')
    expect(headers['content-security-policy']).toMatch(/default-src 'self'.*object-src 'none'/)
    expect(headers['content-security-policy']).not.toMatch(/unsafe/)
    expect(String(headers['set-cookie'])).toMatch(/HttpOnly; SameSite=Strict/)
  })
})

describe('who guesses passwords', () => {
  let practice: TestPractice
  beforeAll(async () => {
    practice = await practiceWithGarden()
  })
  beforeEach(() => practice.db('rate_counts').delete())
  afterAll(() => practice.stop())
  const wrong = 'not this one'
  const head = 'head@example.invalid'

  it('is told the same of a wrong password and an unknown address, and shut out after five tries', async () => {
    const guesser = new Client(practice.app)
    const first = await guesser.signIn(head, wrong)
    const unknown = await guesser.signIn('nobody@example.invalid', wrong)
    expect([first.status, first.body.error]).toEqual([401, unknown.body.error])
    for (let i = 0; i < 4; i++) expect((await guesser.signIn('HEAD@example.invalid', wrong)).status).toBe(401)
    expect((await guesser.signIn(head)).status).toBe(429)
  })

  it('is shut out of every account after eight tries at different ones, and nobody is locked out who signs in', async () => {
    for (let i = 0; i < 10; i++) expect((await new Client(practice.app).signIn(head)).status).toBe(200)
    const guesser = new Client(practice.app)
    for (let i = 0; i < 8; i++)
      expect((await guesser.signIn(`nobody${i}@example.invalid`, wrong)).status).toBe(401)
    expect((await guesser.signIn('another@example.invalid', wrong)).status).toBe(429)
  })

  it('locks nobody out with posts that come from no page of the product', async () => {
    const outside = new Client(practice.app)
    for (let i = 0; i < 25; i++)
      expect((await outside.post('/session/sign-in', { email: head, password: wrong })).status).toBe(403)
    expect((await new Client(practice.app).signIn(head)).status).toBe(200)
  })

  it('is who they are, whatever they say they were forwarded for, unless a server before this one is trusted', async () => {
    const triesAs = async (app: RunningApp['app']) => {
      const statuses: number[] = []
      for (let i = 0; i < 12; i++) {
        const agent = request.agent(app)
        const from = `10.0.0.${i}`
        const { body } = await agent.get('/api/session').set('x-forwarded-for', from)
        const sent = agent
          .post('/api/session/sign-in')
          .set('x-csrf-token', body.csrfToken)
          .set('x-forwarded-for', from)
        statuses.push((await sent.send({ email: `nobody${i}@example.invalid`, password: wrong })).status)
      }
      return statuses
    }
    const behindProxy = composeApp({
      databaseUrl: practice.url,
      sessionSecret: 'test',
      secureCookies: false,
      signInAttempts: { fromAddress: 8, atAccount: 5 },
      trustedProxies: 1,
    })
    expect(await triesAs(behindProxy.app)).toEqual(Array(12).fill(401))
    await behindProxy.close()
    expect(await triesAs(practice.app)).toEqual([...Array(8).fill(401), ...Array(4).fill(429)])
  })

  it('needs HTTPS where it is spoken, and is given cookies there alone', async () => {
    const secure = composeApp({ databaseUrl: practice.url, sessionSecret: 'test', secureCookies: true })
    const agent = request.agent(secure.app)
    const { body, headers } = await agent.get('/api/session').set('x-forwarded-proto', 'https')
    expect(String(headers['set-cookie'])).toMatch(/border\.visit=.*HttpOnly; Secure; SameSite=Strict/)
    const cookie = String(headers['set-cookie']).split(';')[0]!
    const answer = await request(secure.app)
      .post('/api/session/sign-in')
      .set({ cookie, 'x-csrf-token': body.csrfToken, 'x-forwarded-proto': 'https' })
      .send({ email: head, password: PASSWORD })
    expect([answer.status, String(answer.headers['set-cookie'])]).toEqual([
      200,
      expect.stringMatching(/border\.sid=.*HttpOnly; Secure; SameSite=Strict/),
    ])
    await secure.close()
  })
})
