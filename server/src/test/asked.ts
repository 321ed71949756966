import { workOut } from '../work/runs.ts'
import type { TestPractice } from './practice.ts'

/** What a garden answers; anything but an answer is thrown. */
export async function look<T = unknown>({ head, gardenId }: TestPractice, rest: string): Promise<T> {
  const answer = await head.get(`/gardens/${gardenId}${rest}`)
  if (answer.status !== 200) throw new Error(`${rest}: ${answer.status} ${JSON.stringify(answer.body)}`)
  return answer.body
}

/** What a write to a garden answers; anything but an answer is thrown. */
export async function write<T = Record<string, unknown>>(
  { head, gardenId }: TestPractice,
  rest: string,
  body: object = {},
): Promise<T> {
  const answer = await head.post(`/gardens/${gardenId}${rest}`, body)
  if (answer.status !== 200) throw new Error(`${rest}: ${answer.status} ${JSON.stringify(answer.body)}`)
  return answer.body ?? {}
}

/**
 * Works out whatever follows and is not worked out yet, as the queue would in a moment.
 *
 * @param most runs that may be waiting
 */
export async function settle({ db, shop }: TestPractice, most = 5): Promise<void> {
  for (let i = 0; i < most; i++) {
    const waiting = await db('runs').where({ state: 'queued' }).orderBy('created_at').first('id')
    if (!waiting) return
    await workOut(shop, waiting.id)
  }
  throw new Error('What follows a write asks for ever more')
}

/** All that a garden's screens show of what is worked out. */
export const DERIVED = [
  '/assessment',
  '/ahead',
  '/what-ifs',
  '/light-evidence',
  '/record',
  '/bloom',
  '/diagnosis',
  '/walk',
  '/successions',
  '/rules',
  '/watering',
  '/containers',
  '/outlook',
  '/suspicions',
] as const

/** What has to be asked of some that answer a question. */
const asked: Record<string, string> = {
  'containers.absence': '?from=2026-07-10&to=2026-07-24',
  'gardens.findTowns': '?name=Portland',
  'reworks.fit': '?botanical=Hosta%20sieboldiana',
}
/** The question that goes with an endpoint, by `area.name`; most have none. */
export const questionOf = (name: string): string => asked[name] ?? ''
