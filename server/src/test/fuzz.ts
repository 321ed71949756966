import { seededRandom, type Random } from '@border/core'
import type { Endpoint } from '@border/contract'
import { randomUUID } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import type { TestPractice } from './practice.ts'
import type { Sent } from './validWrites.ts'

/** Of which values of a valid body it would be nonsense to keep something else in their place. */
type Nonsense = 'never' | 'always' | 'of a day' | 'of a number'
/** What is put in the place of a value, and where it is nonsense. */
type Poison = readonly [value: unknown, nonsense: Nonsense]

const deep = (levels: number): unknown => (levels === 0 ? 1 : [deep(levels - 1)])

const poisons: readonly Poison[] = [
  ['a\u0000b', 'always'],
  ['\u0007bell', 'always'],
  ['half \ud800', 'always'],
  ['\u200b\u2060', 'always'],
  ['\u3164', 'always'],
  ['0000-01-01', 'of a day'],
  ['9999-12-31', 'of a day'],
  ['0001-05-05', 'of a day'],
  ['2026-02-30', 'never'],
  ['1900-06-15', 'never'],
  ['0000-01-01T00:00:00Z', 'of a day'],
  [1e308, 'of a number'],
  [-1e308, 'of a number'],
  [1e21, 'of a number'],
  [-1, 'never'],
  [0, 'never'],
  [0.5, 'never'],
  [2 ** 31, 'never'],
  [2 ** 53, 'never'],
  ['NaN', 'never'],
  ['', 'never'],
  [' ', 'never'],
  ['x'.repeat(5000), 'never'],
  ['=1+1', 'never'],
  ["'; drop table gardens; --", 'never'],
  ['../../etc/passwd', 'never'],
  ['%s%n%ZZ', 'never'],
  ['🌿', 'never'],
  ['é\u0301', 'never'],
  [null, 'never'],
  [true, 'never'],
  [[], 'never'],
  [{}, 'never'],
  [{ __proto__: null, constructor: 1, toString: 'x' }, 'never'],
  [deep(20), 'never'],
  [deep(60), 'always'],
  ['00000000-0000-4000-8000-000000000000', 'never'],
  ['AAAAAAAA-AAAA-4AAA-8AAA-AAAAAAAAAAAA', 'never'],
]

type Path = readonly (string | number)[]

/** The way to every value within a value, itself among them. */
function ways(value: unknown, path: Path = []): Path[] {
  if (typeof value !== 'object' || value === null) return [path]
  return [
    path,
    ...Object.entries(value).flatMap(([k, v]) => ways(v, [...path, Array.isArray(value) ? Number(k) : k])),
  ]
}

const at = (value: unknown, path: Path): unknown =>
  path.reduce((v, k) => (v as Record<string, unknown>)[k], value)

function changed(value: unknown, path: Path, change: (inner: unknown) => unknown): unknown {
  const [key, ...rest] = path
  if (key === undefined) return change(value)
  const copy = (Array.isArray(value) ? [...value] : { ...(value as object) }) as Record<
    string | number,
    unknown
  >
  copy[key] = changed(copy[key], rest, change)
  return copy
}

function without(value: unknown, path: Path): unknown {
  const last = path.at(-1)
  return changed(value, path.slice(0, -1), (inner) =>
    Array.isArray(inner)
      ? inner.filter((_, i) => i !== last)
      : Object.fromEntries(Object.entries(inner as object).filter(([k]) => k !== last)),
  )
}

export interface Mutated {
  body: unknown
  /** Keeping it would be nonsense. */
  nonsense: boolean
  says: string
}

const pick = <T>(from: readonly T[], dice: Random): T => from[Math.floor(dice() * from.length)]!

/** A valid body with one thing of it made otherwise; files within it are changed inside. */
export function mutated(body: Record<string, unknown>, dice: Random): Mutated {
  const path = pick(
    ways(body).filter((p) => p.length > 0),
    dice,
  )
  const where = path.join('.')
  const inner = at(body, path)
  const put = (value: unknown) => changed(body, path, () => value)
  if (typeof inner === 'string' && inner.length > 20 && dice() < 0.9) {
    const file = fileMutated(inner, dice)
    if (file) return { body: put(file.text), nonsense: file.nonsense, says: `${where}: ${file.says}` }
  }
  const roll = dice()
  if (roll < 0.08) return { body: without(body, path), nonsense: false, says: `without ${where}` }
  if (roll < 0.12) {
    const many = Array.from({ length: 3000 }, () => inner)
    return {
      body: put(Array.isArray(inner) ? many.map(() => inner[0]) : many),
      nonsense: false,
      says: `${where} 3000 times`,
    }
  }
  if (roll < 0.2 && typeof inner === 'number') {
    const factor = pick([-1, 1e-9, 10, 1000, 1e9], dice)
    return { body: put(inner * factor), nonsense: false, says: `${where} times ${factor}` }
  }
  if (roll < 0.24) {
    const key = pick(['__proto__', 'constructor', 'extra', 'a\u0000b'], dice)
    return {
      body: changed(body, path.slice(0, -1), (v) =>
        Array.isArray(v) ? v : JSON.parse(`${JSON.stringify(v).slice(0, -1)},${JSON.stringify(key)}:1}`),
      ),
      nonsense: false,
      says: `${where} beside ${JSON.stringify(key)}`,
    }
  }
  const [value, nonsense] = pick(poisons, dice)
  return {
    body: put(value),
    nonsense: isNonsense(nonsense, inner),
    says: `${where} = ${JSON.stringify(value)?.slice(0, 40)}`,
  }
}

const isNonsense = (nonsense: Nonsense, inPlaceOf: unknown): boolean =>
  nonsense === 'always' ||
  (nonsense === 'of a day' && /^\d{4}-\d{2}-\d{2}/.test(String(inPlaceOf))) ||
  (nonsense === 'of a number' && /^-?\d+(\.\d+)?$/.test(String(inPlaceOf)))

/** A JSON or CSV text with one value of it made otherwise; undefined for other text. */
function fileMutated(
  text: string,
  dice: Random,
): { text: string; nonsense: boolean; says: string } | undefined {
  if (text.startsWith('{')) {
    const { body, nonsense, says } = mutated(JSON.parse(text), dice)
    return { text: JSON.stringify(body), nonsense, says }
  }
  const rows = text.split('\n').map((line) => line.split(','))
  if (rows.length < 2) return undefined
  const row = 1 + Math.floor(dice() * (rows.length - 1))
  const column = Math.floor(dice() * rows[0]!.length)
  const [value, nonsense] = pick(
    poisons.filter(([v]) => typeof v === 'string' || typeof v === 'number'),
    dice,
  )
  const written = rows[row]![column]
  if (written === undefined) return undefined
  rows[row]![column] = String(value)
  return {
    text: rows.map((cells) => cells.join(',')).join('\n'),
    nonsense: isNonsense(nonsense, written),
    says: `line ${row + 1}, ${rows[0]![column]} = ${JSON.stringify(value).slice(0, 40)}`,
  }
}

/** What came of one address: how much was sent to it, and what was wrong with what it did. */
export interface Fuzzed {
  sent: number
  faults: string[]
}

/** Longer than this for one write is a hang, milliseconds. */
const HANG_MS = 10_000

/**
 * Sends bodies to one address that are each a valid one made otherwise: none may end in an error of the server, take for ever, or be
 * accepted with something in it that no garden has. A valid one is accepted first, and again after every hundred.
 */
export async function fuzz(
  practice: TestPractice,
  endpoint: Endpoint,
  valid: () => Promise<Sent>,
  { inputs, seed }: { inputs: number; seed: number },
): Promise<Fuzzed> {
  const dice = seededRandom(seed)
  const found: Fuzzed = { sent: 0, faults: [] }
  let sent!: Sent
  for (let i = 0; i < inputs; i++) {
    if (i % 100 === 0) {
      sent = await valid()
      const answer = await practice.head.post(sent.path, sent.body, { file: sent.file })
      if (answer.status !== 200)
        found.faults.push(`a valid request is answered ${answer.status}: ${JSON.stringify(answer.body)}`)
    }
    const { body, nonsense, says } = mutated(renewed(sent), dice)
    const begun = performance.now()
    const answer = await practice.head.post(sent.path, body as object, { file: sent.file })
    const tookMs = performance.now() - begun
    found.sent++
    if (answer.status >= 500) found.faults.push(`${says}: ${answer.status}`)
    else if (tookMs > HANG_MS) found.faults.push(`${says}: took ${Math.round(tookMs)} ms`)
    else if (
      answer.status === 200 &&
      nonsense &&
      !isPassedOver(endpoint, sent, body) &&
      !saysRefused(answer.body)
    )
      found.faults.push(`${says}: accepted`)
    else if (answer.status >= 400 && !saysWhat(answer.body.error))
      found.faults.push(`${says}: refused without saying what is wrong: ${answer.body.error}`)
  }
  return found
}

/** The same said anew: under ids of its own. */
const renewed = ({ body, ownIds }: Sent): Sent['body'] =>
  JSON.parse(ownIds.reduce((text, id) => text.replaceAll(id, randomUUID()), JSON.stringify(body)))

/** What the schema takes of it is what it takes of the valid one: what was made otherwise is not looked at. */
function isPassedOver(endpoint: Endpoint, sent: Sent, body: unknown): boolean {
  const before = endpoint.body!.safeParse(sent.body)
  const after = endpoint.body!.safeParse(body)
  return before.success && after.success && isDeepStrictEqual(before.data, after.data)
}

/** A refusal by the database alone cannot say what it is that cannot be kept. */
const saysWhat = (error: unknown): boolean =>
  typeof error === 'string' && !/cannot be kept as it is|conflicts with what is already/.test(error)

/** Of what is judged one by one, or tried only, the answer itself tells what was refused. */
const saysRefused = (answer: { refused?: unknown[]; ok?: unknown }): boolean =>
  (answer.refused?.length ?? 0) > 0 || answer.ok === false
