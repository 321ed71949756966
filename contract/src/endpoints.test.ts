import { describe, expect, it } from 'vitest'
import { addressOf, endpoints, type Endpoint } from './index.ts'

const all: [string, Endpoint][] = Object.entries(endpoints).flatMap(([area, list]) =>
  Object.entries<Endpoint>(list).map(([name, e]): [string, Endpoint] => [`${area}.${name}`, e]),
)
const inGarden = all.filter(([, e]) => typeof e.access === 'object')
const paramsIn = (path: string) => [...path.matchAll(/:(\w+)/g)].map((m) => m[1]!)

describe('every endpoint', () => {
  it('has an address of its own', () => {
    const addresses = all.map(([, e]) => `${e.method} ${e.path.replace(/:\w+/g, ':')}`)
    expect(addresses.filter((a, i) => addresses.indexOf(a) !== i)).toEqual([])
  })

  it('that is for members of a garden names the garden in its path, and no other does', () => {
    for (const [name, { path, access }] of all)
      expect([name, paramsIn(path).includes('gardenId')]).toEqual([name, typeof access === 'object'])
    expect(inGarden.length).toBeGreaterThan(80)
  })

  it('that writes is a POST, and what is read sends no body and says nothing of being done', () => {
    for (const [name, e] of all) {
      if (e.writes) expect([name, e.method]).toEqual([name, 'post'])
      if (e.method === 'get') expect([name, e.body, e.writes]).toEqual([name, undefined, undefined])
    }
  })

  it('that is sent what was seen of a thing has nothing else of that name in its body', () => {
    const seeing = all.filter(([, e]) => e.sees)
    expect(seeing.length).toBeGreaterThan(15)
    for (const [name, { method, body, writes }] of seeing) {
      expect([name, method, writes]).toEqual([name, 'post', true])
      const shape = (body as { shape?: object } | undefined)?.shape ?? {}
      expect([name, 'seen' in shape]).toEqual([name, false])
    }
  })

  it('that every member may use changes nothing', () => {
    for (const [name, e] of inGarden)
      if (typeof e.access === 'object' && e.access.garden === 'keeper')
        expect([name, e.writes ?? false]).toEqual([name, false])
  })

  it('answers with nothing beyond what it says: an answer with more is refused', () => {
    for (const [name, e] of all) {
      if (e.sends) continue
      const read = e.answer.safeParse({ ok: true, aSecretOfTheServer: 1 })
      expect([name, read.success]).toEqual([name, false])
    }
  })
})

describe('an address', () => {
  it('is made of every part that its path asks for', () => {
    for (const [, { path }] of all) {
      const params = Object.fromEntries(paramsIn(path).map((name, i) => [name, `part ${i}/`]))
      const made = addressOf(path, params)
      expect(made).not.toContain(':')
      expect(made.split('/').length).toBe(path.split('/').length)
    }
  })
})
