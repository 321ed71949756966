import {
  endpoints,
  plantingSeen,
  type AssessmentView,
  type CrewView,
  type Endpoint,
  type ErrorAnswer,
  type FeatureView,
  type GardenView,
  type KnownTaxon,
  type LikelihoodView,
  type PictureView,
  type ReworkView,
  type PlantingView,
  type RuleView,
  type SeasonView,
} from '@border/contract'
import { addDays, followed, schoolOf } from '@border/core'
import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { versionsOf } from '../store/versions.ts'
import { ownRule } from './validWrites.ts'
import { practiceWithGarden, shortRecord, type Client, type TestPractice } from './practice.ts'
import { amending, drawing } from './edits.ts'
import { beginning, saidOf } from './schemes.ts'

/** Two people who look at the same thing, and change it one after the other. */

const TODAY = '2026-09-15'
let practice: TestPractice
let [tobin, marla]: Client[] = []

beforeAll(async () => {
  practice = await practiceWithGarden(shortRecord, () => Date.parse(`${TODAY}T10:00:00Z`))
  await practice.work([0, 240, 240, 240, 240, 240, 0])
  ;[tobin, marla] = [await practice.join('Tobin', 'head'), await practice.join('Marla', 'head')]
  await practice.db('people').whereIn('name', ['Tobin', 'Marla']).update({ leads: true })
})
afterAll(() => practice.stop())

const look = async <T>(rest: string): Promise<T> =>
  (await practice.head.get(`/gardens/${practice.gardenId}${rest}`)).body as T
const part = async (name: string): Promise<FeatureView> =>
  (await look<GardenView>('')).features.find((f) => f.name === name)!
const planting = async (tag: string): Promise<PlantingView> =>
  (await look<GardenView>('')).plantings.find((p) => p.tag === tag)!
const amended = async (tag: string, more: object) => {
  return amending((await planting(tag)).id, more)
}
const crew = () => look<CrewView>('/crew')
const [A_DAY, ANOTHER] = [addDays(TODAY, 9), addDays(TODAY, 10)]
const jobs = async () => {
  const all = (await look<SeasonView>('/season')).jobs
  return all.filter((j) => j.state === 'open' && j.ruleId !== null && j.after.length === 0)
}
const jobSeen = ({ state, pinnedOn }: SeasonView['jobs'][number]) => ({ state, pinnedOn })
const wordsSeen = async (...tags: string[]) => {
  const { decisions } = await look<AssessmentView>('/assessment')
  const ids = await Promise.all(tags.map(async (tag) => (await planting(tag)).id))
  return ids.map((plantingId) => ({
    plantingId,
    decisionId: decisions.find((d) => d.plantingId === plantingId)?.id ?? null,
  }))
}
const keep = async (tag: string, reason: string) => ({
  plantingId: (await planting(tag)).id,
  on: TODAY,
  choice: 'otherwise',
  action: 'watch',
  reason,
})
const drawn = ({ id: _, kind, name, geometry, properties, from, to }: FeatureView, more: object) => ({
  feature: {
    type: 'Feature',
    geometry,
    properties: { ...properties, kind, name, ...(from && { from }), ...(to && { to }), ...more },
  },
})

interface Change {
  endpoint: Endpoint
  /** Address below the garden, what is seen of it, and how each of the two changes it. */
  of: () => Promise<{ path: string; seen: unknown; theirs: object; mine: object }>
  /** Its address is the practice's, not below a garden. */
  isOfPractice?: true
  /** What the second is told. */
  says: RegExp
  /** What one changes, and the other then takes out, is not there to be changed. */
  goesAway?: true
}

const ofPear = async (path: string, theirs: object, mine: object) => {
  const pear = await part('Pear')
  return { path: `/features/${pear.id}${path}`, seen: pear, theirs, mine }
}
const ofJob = async (path: string, nth: number, theirs: object, mine: object) => {
  const job = (await jobs())[nth]!
  return { path: `/jobs/${job.id}${path}`, seen: jobSeen(job), theirs, mine }
}

const changes: Change[] = [
  {
    endpoint: endpoints.pictures.amend,
    of: async () => {
      const id = randomUUID()
      const file = await sharp({ create: { width: 8, height: 6, channels: 3, background: '#edc' } })
        .png()
        .toBuffer()
      const path = `/plan/pictures`
      await practice.head.post(`/gardens/${practice.gardenId}${path}`, { id, name: 'Survey' }, { file })
      const seen = (await look<PictureView[]>(path)).find((p) => p.id === id)
      return { path: `${path}/${id}/amend`, seen, theirs: { isShown: false }, mine: { name: 'Old survey' } }
    },
    says: /^The picture is hidden\.$/,
  },
  {
    endpoint: endpoints.reworks.keepScheme,
    of: async () => {
      const rework = beginning((await part('Court border')).id)
      const schemeId = rework.schemes[0]!.id
      await practice.head.post(`/gardens/${practice.gardenId}/reworks`, rework)
      const { revisionId } = (await look<ReworkView[]>('/reworks')).find((r) => r.id === rework.id)!
        .schemes[0]!
      return {
        path: `/reworks/${rework.id}/schemes/${schemeId}/keep`,
        seen: { revisionId },
        theirs: { said: saidOf({ name: 'Theirs' }) },
        mine: { said: saidOf({ name: 'Mine' }) },
      }
    },
    says: /^Theirs was changed: it has 0 drifts now\.$/,
  },
  {
    endpoint: endpoints.plan.edit,
    of: async () => {
      const wall = await part('Old workshop')
      const seen = wall
      return {
        path: '/plan/edits',
        seen: [seen],
        theirs: drawing(drawn(wall, { heightM: 5.5 }), wall.id),
        mine: drawing(drawn(wall, { heightM: 4.5 }), wall.id),
      }
    },
    says: /^Its height is 5\.5 m; you saw \d/,
  },
  {
    endpoint: endpoints.plan.changeFeature,
    of: () =>
      ofPear(
        '/change',
        { date: addDays(TODAY, -9), change: { thinnedBy: 0.4 } },
        { date: addDays(TODAY, -8), change: { heightM: 3 } },
      ),
    says: /It was thinned by 40\u00a0% on 6 September 2026/,
  },
  {
    endpoint: endpoints.plan.recordEvent,
    of: () =>
      ofPear(
        '/events',
        { date: addDays(TODAY, -4), action: 'measured', heightM: 5 },
        { date: addDays(TODAY, -4), action: 'measured', heightM: 6 },
      ),
    says: /It was measured at 5 m on 11 September 2026/,
  },
  {
    endpoint: endpoints.plan.takeBackEvent,
    of: () => ofPear('/events/undo', {}, {}),
    says: /^That it was .* was taken back\.$/,
  },
  {
    endpoint: endpoints.plan.endFeature,
    of: () => ofPear('/end', { to: addDays(TODAY, -2) }, { to: addDays(TODAY, -1) }),
    says: /^It is gone from 13 September 2026\.$/,
  },
  {
    endpoint: endpoints.plantings.amend,
    of: async () => ({
      path: '/plantings/amend',
      seen: [plantingSeen(await planting('W-03'))],
      theirs: await amended('W-03', { tag: 'W-33' }),
      mine: await amended('W-03', { count: 40 }),
    }),
    says: /^Its tag is W-33 now\.$/,
  },
  {
    endpoint: endpoints.gardens.amend,
    of: async () => {
      const { name, latitude, longitude, timeZone, northDeg } = (await look<GardenView>('')).garden
      return {
        path: '/amend',
        seen: { name, latitude, longitude, timeZone, northDeg },
        theirs: { northDeg: 12 },
        mine: { northDeg: 14 },
      }
    },
    says: /^North lies at 12° on its plan\.$/,
  },
  {
    endpoint: endpoints.verdicts.decide,
    of: async () => ({
      path: '/decisions',
      seen: await wordsSeen('W-02'),
      theirs: await keep('W-02', 'Another year will tell.'),
      mine: await keep('W-02', 'I want to see it in June.'),
    }),
    says: /^W-02 decided: watch, by Tobin\.$/,
  },
  {
    endpoint: endpoints.verdicts.decideMany,
    of: async () => {
      const [seen, other] = [await wordsSeen('W-04', 'W-05'), await wordsSeen('W-05', 'W-06')]
      const wait = (of: typeof seen, until: string) => ({
        plantingIds: of.map((w) => w.plantingId),
        on: TODAY,
        word: { choice: 'wait', until },
      })
      return {
        path: '/decisions/many',
        seen,
        theirs: { ...wait(other, A_DAY), seen: other },
        mine: wait(seen, ANOTHER),
      }
    },
    says: /^W-05 is left until 24 September 2026, by Tobin\.$/,
  },
  {
    endpoint: endpoints.seasons.pin,
    of: async () => {
      for (const [nth, { id }] of (await jobs()).entries()) {
        const { days } = await look<{ days: { day: string; isFree: boolean }[] }>(`/jobs/${id}/why`)
        const [first, second] = days.filter((d) => d.isFree)
        if (second) return ofJob('/pin', nth, { day: first!.day }, { day: second.day })
      }
      throw new Error('No job could be done on two days')
    },
    says: /^It is pinned to \d+ \w+ 202\d\.$/,
  },
  {
    endpoint: endpoints.seasons.leaveOut,
    of: () => ofJob('/leave-out', 1, { leaveOut: true }, { leaveOut: true }),
    says: /^It was left out\.$/,
    goesAway: true,
  },
  {
    endpoint: endpoints.crews.savePerson,
    of: async () => {
      const [seen] = (await crew()).people
      const week = (minutes: number) => ({ ...seen!, minutesByWeekday: [0, minutes, 0, 0, 0, 0, 0] })
      return { path: '/crew/people', seen, theirs: week(60), mine: week(90) }
    },
    says: /^Works Monday 60 minutes\.$/,
  },
  {
    endpoint: endpoints.crews.name,
    of: async () => {
      const { name, gardens } = await crew()
      const { travelMinutes } = gardens.find((g) => g.id === practice.gardenId)!
      return {
        path: '/crew',
        seen: { name, travelMinutes },
        theirs: { name, travelMinutes: 25 },
        mine: { name: 'The two', travelMinutes },
      }
    },
    says: /^The way here and back takes 25 minutes\.$/,
  },
  {
    endpoint: endpoints.crews.setDay,
    of: async () => ({
      path: '/crew/days',
      seen: { minutes: (await crew()).days.find((d) => d.day === A_DAY)?.minutes ?? null },
      theirs: { day: A_DAY, minutes: 0 },
      mine: { day: A_DAY, minutes: 300 },
    }),
    says: /^24 September 2026 is a day without work\.$/,
  },
  {
    endpoint: endpoints.crews.leave,
    of: async () => {
      const [seen] = (await crew()).people
      return { path: `/crew/people/${seen!.id}/leave`, seen, theirs: {}, mine: {} }
    },
    says: /^It is no longer there\.$/,
    goesAway: true,
  },
]

/** A garden that somebody else too has made. */
const madeBy = async (who: Client, name: string): Promise<string> => {
  const { body } = await who.post('/gardens', { name, latitude: 51, longitude: 0, timeZone: 'Europe/London' })
  return body.gardenId
}
changes.push({
  endpoint: endpoints.crews.share,
  of: async () => ({
    path: '/crew/share',
    seen: { crewId: (await crew()).id },
    theirs: { withGardenId: await madeBy(tobin!, 'Orchard') },
    mine: { withGardenId: await madeBy(marla!, 'Yard') },
  }),
  says: /^The garden is worked by the crew “.+” now\.$/,
})

const ownTaxon = async (more: object) => {
  const { body } = await practice.head.get('/taxa')
  const { own: _, ...taxon } = (body as KnownTaxon[]).find((t) => t.botanical === 'Hosta sieboldiana')!
  return { ...taxon, botanical: 'Hosta nostra', common: 'our hosta', synonyms: [], ...more }
}
/** Of the practice's own, and how it is seen. */
async function keptTaxon(): Promise<KnownTaxon> {
  await practice.head.post('/taxa', { taxon: await ownTaxon({}) })
  const { body } = await practice.head.get('/taxa')
  return (body as KnownTaxon[]).find((t) => t.botanical === 'Hosta nostra')!
}

/** Tried before the rest: some of it goes away. */
const rules = async () => (await look<RuleView[]>('/rules')).filter((r) => !r.isOwn)
changes.unshift(
  {
    endpoint: endpoints.taxa.save,
    of: async () => {
      const seen = await keptTaxon()
      const put = async (heightM: number) => ({ taxon: await ownTaxon({ heightM }), was: seen.botanical })
      return { path: '/taxa', seen, theirs: await put(0.7), mine: await put(0.9) }
    },
    says: /^Put otherwise: height\.$/,
    isOfPractice: true,
  },
  {
    endpoint: endpoints.taxa.remove,
    of: async () => {
      const seen = await keptTaxon()
      const { botanical } = seen
      return { path: '/taxa/remove', seen, theirs: { botanical }, mine: { botanical } }
    },
    says: /^It is no longer there\.$/,
    isOfPractice: true,
    goesAway: true,
  },
  {
    endpoint: endpoints.rules.removeOwn,
    of: async () => {
      const { body } = await practice.head.post(`/gardens/${practice.gardenId}/rules`, ownRule)
      const seen = (await look<RuleView[]>('/rules')).find((r) => r.id === body.id)!.own
      return { path: `/rules/${body.id}/remove`, seen, theirs: {}, mine: {} }
    },
    says: /^It is no longer there\.$/,
    goesAway: true,
  },
  {
    endpoint: endpoints.verdicts.saySuccessor,
    of: async () => {
      const ailing = drawn(await part('Pear'), { name: 'Old pear', health: 'failing' })
      const id = randomUUID()
      await send(practice.head, '/plan/edits', drawing(ailing, id))
      const put = (state: string) => ({ state })
      return {
        path: `/successions/${id}`,
        seen: { word: null },
        theirs: put('dismissed'),
        mine: put('open'),
      }
    },
    says: /^No successor is wanted\.$/,
  },
  {
    endpoint: endpoints.records.judgeTrial,
    of: async () => {
      const say = (outcome: string, more: object = {}) => ({ on: TODAY, outcome, ...more })
      return {
        path: `/plantings/${(await planting('W-02')).id}/trial`,
        seen: { outcome: null },
        theirs: say('expand', { driftCount: 7 }),
        mine: say('strike off'),
      }
    },
    says: /^Trial ended: to be grown to a drift of 7\. Said by Tobin on 15 September 2026\.$/,
  },
  {
    endpoint: endpoints.plantings.withdraw,
    of: async () => {
      const seen = await planting('W-08')
      const out = { plantingIds: [seen.id] }
      return { path: '/plantings/withdraw', seen: [plantingSeen(seen)], theirs: out, mine: out }
    },
    says: /^It is no longer there\.$/,
    goesAway: true,
  },
  {
    endpoint: endpoints.rules.change,
    of: async () => {
      const { id, isOn, adjusted } = (await rules()).find((r) => r.isOn)!
      return {
        path: `/rules/${id}`,
        seen: { isOn, adjusted },
        theirs: { adjusted: { shiftDays: 6 } },
        mine: { isOn: false },
      }
    },
    says: /^It is adjusted: 6 days later\.$/,
  },
  {
    endpoint: endpoints.rules.saveOwn,
    of: async () => {
      const { body } = await practice.head.post(`/gardens/${practice.gardenId}/rules`, ownRule)
      const seen = (await look<RuleView[]>('/rules')).find((r) => r.id === body.id)!.own
      const again = (does: string) => ({ ...ownRule, id: body.id as string, does })
      return { path: '/rules', seen, theirs: again('hoe and rake'), mine: again('hoe by hand') }
    },
    says: /^It says “hoe and rake” now\.$/,
  },
  {
    endpoint: endpoints.rules.followSchool,
    of: async () => {
      const school = 'cutting-back'
      const choice = followed((await look<GardenView>('')).schools, school)
      const other = schoolOf(school).choices.find((c) => c.id !== choice)!
      return {
        path: '/schools',
        seen: { choice },
        theirs: { school, choice: other.id },
        mine: { school, choice },
      }
    },
    says: /^Followed: /,
  },
  {
    endpoint: endpoints.climates.sayKnown,
    of: () =>
      Promise.resolve({
        path: '/known-climate',
        seen: { known: null },
        theirs: { lastFrost: '05-14' },
        mine: { lastFrost: '04-30' },
      }),
    says: /^Last frost of spring: 14 May\.$/,
  },
  {
    endpoint: endpoints.records.setShare,
    of: async () => {
      const { rows } = await look<LikelihoodView>('/likelihoods')
      const { sign, cause, share } = rows.find((r) => r.share === 0.5) ?? rows[0]!
      const put = (to: number) => ({ sign, cause, share: to })
      return { path: '/likelihoods', seen: { share }, theirs: put(0.15), mine: put(0.35) }
    },
    says: /speaks for it 15 times in 100; you saw \d+\.$/,
  },
)

/** The versions of all that is recorded of the garden, which the database raises itself. */
const recorded = () => versionsOf(practice.db, practice.gardenId)

const send = (who: Client, path: string, body: object, isOfPractice = false) =>
  who.post(isOfPractice ? path : `/gardens/${practice.gardenId}${path}`, body)

describe('a change of what somebody else has changed since it was seen', () => {
  it('is tried of all that is changed as it was seen', () => {
    const all = Object.values(endpoints).flatMap((area) => Object.values<Endpoint>(area))
    expect(new Set(changes.map((c) => c.endpoint))).toEqual(new Set(all.filter((e) => e.sees)))
  })

  it.each(changes.map((c) => [c.endpoint.path.replace('/gardens/:gardenId', ''), c] as const))(
    '%s: is not made, is told what has become of it, and is made when that is seen',
    async (_, { of, says, isOfPractice, goesAway }) => {
      const { path, seen, theirs, mine } = await of()
      const first = await send(tobin!, path, { seen, ...theirs }, isOfPractice)
      expect([first.status, first.body]).toEqual([200, expect.anything()])
      const before = await recorded()

      const refused = await send(marla!, path, { ...mine, seen }, isOfPractice)
      expect(refused.status).toBe(409)
      const { error, meanwhile } = refused.body as ErrorAnswer
      expect(error).toBe('Tobin has changed this since you looked at it. Nothing of yours was saved.')
      expect(meanwhile).toMatchObject({ by: 'Tobin', says: [expect.stringMatching(says)] })
      expect(Date.parse(meanwhile!.at!)).toBeGreaterThan(Date.now() - 60_000)
      expect(await recorded()).toEqual(before)

      // Whoever changed it last goes on from there.
      if (goesAway) return
      const again = await send(marla!, path, { ...mine, seen: meanwhile!.stands }, isOfPractice)
      expect([again.status, again.body]).toEqual([200, expect.anything()])
      expect(await recorded()).not.toEqual(before)
      const own = await send(marla!, path, { ...mine, seen: meanwhile!.stands }, isOfPractice)
      expect(own.body.meanwhile).toBeUndefined()
    },
  )
})

describe('what one has changed last oneself', () => {
  it('is one’s own to change again, unless it has become another by something else', async () => {
    const before = plantingSeen(await planting('W-06'))
    const amend = async (more: object) =>
      send(marla!, '/plantings/amend', { ...(await amended('W-06', more)), seen: [before] })
    expect((await amend({ count: 30 })).status).toBe(200)
    expect((await amend({ count: 31 })).status).toBe(200)
    // Moved by a job that was done, say: no write of its own.
    await practice
      .db('planting_sites')
      .where({ planting_id: (await planting('W-06')).id, to_date: null })
      .increment('x', 0.2)
    const refused = await amend({ count: 32 })
    expect(refused.status).toBe(409)
    expect(refused.body.error).toMatch(/^This has changed since you looked at it/)
    expect(refused.body.meanwhile).toMatchObject({
      by: null,
      says: [expect.stringMatching(/^It stands elsewhere in /), '31 were planted.'],
    })
  })
})

describe('what is said to have been seen', () => {
  it('is refused by its name where it is nothing of the kind', async () => {
    const { status, body } = await send(tobin!, '/crew/days', {
      day: ANOTHER,
      minutes: 0,
      seen: { minutes: 'none' },
    })
    expect(status).toBe(422)
    expect(body.problems).toEqual([expect.objectContaining({ where: 'seen.minutes' })])
  })

  it('need not be said: it is changed however it stands', async () => {
    expect((await send(tobin!, '/crew/days', { day: ANOTHER, minutes: 0 })).status).toBe(200)
    expect((await send(marla!, '/crew/days', { day: ANOTHER, minutes: 60 })).status).toBe(200)
  })
})
