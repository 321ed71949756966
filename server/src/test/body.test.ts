import fc from 'fast-check'
import { request } from 'node:http'
import type { AddressInfo } from 'node:net'
import { gzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { shapeOf } from '../body.ts'
import { testApp, type TestApp } from './practice.ts'

describe('the shape of a JSON text', () => {
  const commasOf = (value: unknown): number => {
    if (typeof value !== 'object' || value === null) return 0
    const inner = Object.values(value)
    return Math.max(0, inner.length - 1) + inner.reduce((sum: number, v) => sum + commasOf(v), 0)
  }
  const depthOf = (value: unknown): number =>
    typeof value === 'object' && value !== null ? 1 + Math.max(0, ...Object.values(value).map(depthOf)) : 0

  it('is told from the text alone as from what it holds', () => {
    const text = fc.string({ unit: fc.constantFrom('"', '\\', '[', '{', ']', '}', 'a', 'é', '🌿', '\u0000') })
    const { value } = fc.letrec((tie) => ({
      value: fc.oneof(
        { maxDepth: 6 },
        text,
        fc.integer(),
        fc.array(tie('value'), { maxLength: 3 }),
        fc.dictionary(text, tie('value'), { maxKeys: 3 }),
      ),
    }))
    fc.assert(
      fc.property(value, fc.boolean(), (made, spaced) => {
        const json = JSON.stringify(made, null, spaced ? 2 : 0)
        const read = JSON.parse(json)
        expect(shapeOf(Buffer.from(json))).toEqual({ nesting: depthOf(read), commas: commasOf(read) })
      }),
    )
  })

  it('is told of text that is no JSON', () => {
    for (const [text, depth] of [
      ['', 0],
      ['"never ends [[[', 0],
      ['[[[', 3],
      ['"\\', 0],
      ['{"a\\\\":[1]}', 2],
    ] as const)
      expect(shapeOf(Buffer.from(text)).nesting).toBe(depth)
  })
})

describe('a request that cannot be read', () => {
  let app: TestApp
  let port: number
  let close: () => void
  beforeAll(async () => {
    app = await testApp()
    const server = app.app.listen(0, '127.0.0.1')
    await new Promise((r) => server.once('listening', r))
    ;({ port } = server.address() as AddressInfo)
    close = () => server.close()
  })
  afterAll(async () => {
    close()
    await app.stop()
  })

  const send = (path: string, body: Buffer | string, headers: Record<string, string | number> = {}) =>
    new Promise<{ status: number; text: string }>((resolve, reject) => {
      const method = body.length > 0 ? 'POST' : 'GET'
      const type = { 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) }
      const asking = request(
        { host: '127.0.0.1', port, path, method, headers: { ...type, ...headers } },
        (res) => {
          let text = ''
          res.setEncoding('utf8').on('data', (part) => (text += part))
          res.on('end', () => resolve({ status: res.statusCode!, text }))
        },
      )
      asking.once('error', reject)
      asking.end(body)
    })
  const signIn = '/api/session/sign-in'

  it.each<[string, () => ReturnType<typeof send>, number, RegExp]>([
    ['a broken percent sign', () => send('/api/gardens/%E0%A4%A', ''), 400, /cannot be read as it was sent/],
    [
      'a packing nobody knows',
      () => send(signIn, '{}', { 'content-encoding': 'zstd9' }),
      415,
      /gzip, deflate and br/,
    ],
    [
      'broken gzip',
      () => send(signIn, 'no gzip', { 'content-encoding': 'gzip' }),
      400,
      /cannot be read as it was sent/,
    ],
    [
      'gzip that ends early',
      () => send(signIn, gzipSync('{"a":1}').subarray(0, 12), { 'content-encoding': 'gzip' }),
      400,
      /cannot be read as it was sent/,
    ],
    [
      'another alphabet',
      () => send(signIn, '{}', { 'content-type': 'application/json; charset=latin1' }),
      415,
      /UTF-8/,
    ],
    [
      'UTF-16',
      () =>
        send(signIn, Buffer.from('{}', 'utf16le'), { 'content-type': 'application/json; charset=utf-16' }),
      415,
      /UTF-8/,
    ],
    ['no JSON', () => send(signIn, '{"a":'), 400, /not valid JSON/],
    [
      'lists nested 5,000 deep',
      () => send(signIn, '['.repeat(5000) + ']'.repeat(5000)),
      400,
      /deeper than 32 levels/,
    ],
    [
      'objects nested a million deep',
      () => send(signIn, '{"a":'.repeat(1e6) + '1' + '}'.repeat(1e6)),
      400,
      /deeper than 32 levels/,
    ],
    ['more than is taken', () => send(signIn, `{"a":"${'x'.repeat(14e6)}"}`), 413, /13 MB/],
    ['more values than are taken', () => send(signIn, `{"a":[${'1,'.repeat(6e6)}1]}`), 413, /20000 values/],
    [
      'more than is taken, packed',
      () => send(signIn, gzipSync(`{"a":"${'x'.repeat(14e6)}"}`), { 'content-encoding': 'gzip' }),
      413,
      /13 MB/,
    ],
  ])('for %s is refused with a word', async (_what, ask, status, words) => {
    const answer = await ask()
    expect([answer.status, answer.text]).toEqual([status, expect.stringMatching(words)])
  })
})
