import { namings } from '@border/core'
import { z } from 'zod'
import { id, instant, isoDay, shortText } from './basics.ts'
import { asks, done, reads } from './endpoint.ts'
import type { Preferences } from './preferences.ts'
import { roles } from './roles.ts'

const password = z.string().min(10, 'must be at least 10 characters').max(200)
export const account = { name: shortText, email: z.email().max(200), password }

const preferences = z.strictObject({
  names: z.enum(namings),
  length: z.enum(['metres', 'feet and inches']),
  temperature: z.enum(['Celsius', 'Fahrenheit']),
  volume: z.enum(['litres', 'US gallons']),
  weight: z.enum(['kilograms', 'pounds']),
  dates: z.enum(['day first', 'month first']),
  weekStart: z.enum(['Monday', 'Sunday']),
}) satisfies z.ZodType<Preferences>

const sessionInfo = z.strictObject({
  csrfToken: z.string(),
  /** Nobody has an account yet: the first one is asked for. */
  needsFirstAccount: z.boolean(),
  demoPeople: z.array(z.strictObject({ id, name: z.string(), role: z.enum(roles) })),
  person: z
    .strictObject({ id, name: z.string(), practiceName: z.string(), leads: z.boolean(), preferences })
    .nullable(),
  /** The server's clock, UTC: a device whose own is wrong goes by this. */
  now: instant,
  demoDate: isoDay.nullable(),
  usesRealToday: z.boolean(),
})
export type SessionInfo = z.infer<typeof sessionInfo>

/** Who is asking. Signing in begins a session anew, so that a cookie from before is worth nothing after it. */
export const sessionEndpoints = {
  read: reads('/session', 'anyone', { answer: sessionInfo, restsOn: [] }),
  signIn: asks('/session/sign-in', 'anyone', {
    body: z.object({ email: z.email().max(200), password: z.string().min(1).max(200) }),
    answer: sessionInfo,
  }),
  enterDemo: asks('/session/demo', 'anyone', { body: z.object({ personId: id }), answer: sessionInfo }),
  firstAccount: asks('/session/first-account', 'anyone', {
    body: z.object({ practiceName: shortText, ...account }),
    answer: sessionInfo,
  }),
  signOut: asks('/session/sign-out', 'signed in', { answer: done }),
  setClock: asks('/session/clock', 'signed in', {
    body: z.object({ useRealToday: z.boolean() }),
    answer: sessionInfo,
  }),
  /** What is not said stays as it was. */
  prefer: asks('/session/preferences', 'signed in', { body: preferences.partial(), answer: sessionInfo }),
}
