import {
  endpoints,
  type CrewView,
  type Endpoint,
  type FeatureView,
  type GardenView,
  type OwnRuleRequest,
  type RuleView,
  type ScheduleRunView,
  type SeasonView,
} from '@border/contract'
import { addDays, sceneOf, seededRandom } from '@border/core'
import { simulateLog } from '@border/core/simulated'
import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { beginning, saidOf } from './schemes.ts'
import { look, write } from './asked.ts'
import { shortRecord, workOutWaiting, type TestPractice } from './practice.ts'
import { amending, drawing, entering } from './edits.ts'

/** Where a write goes, and a body that is accepted there. */
export interface Sent {
  path: string
  body: Record<string, unknown>
  /** Sent with it, where the address takes one. */
  file?: Buffer | undefined
  /** The ids in it that are its own: what was sent before under one of them is known. */
  ownIds: readonly string[]
}

/** The path of an endpoint with its parts filled in; each must be given. */
function pathOf({ path }: Endpoint, given: Record<string, string>): string {
  return path.replace(/:(\w+)/g, (_, name: string) => {
    const part = given[name]
    if (part === undefined) throw new Error(`${path} needs ${name}`)
    return part
  })
}

/** A container filled for the first time. */
export const fillOf = (containerId: string, more: object = {}) => ({
  containerId,
  replaces: null,
  on: '2026-05-20',
  name: 'Summer',
  season: 'summer',
  mix: [
    { name: 'compost', parts: 3 },
    { name: 'grit', parts: 1 },
  ],
  renewed: 1,
  in: [{ taxonBotanical: 'Tagetes patula', count: 5, source: 'bought', role: 'filler' }],
  ...more,
})

/** A rule of a garden's own. */
export const ownRule: OwnRuleRequest = {
  operation: 'upkeep',
  does: 'Brush the paths beside the bed',
  on: { what: 'places', place: 'bed' },
  opens: { at: 'last frost', days: 10 },
  bestFrom: { at: 'earliest', days: 0 },
  bestTo: { at: 'earliest', days: 14 },
  closes: { at: 'earliest', days: 40 },
  labour: { setUp: 10, perPlant: 0, perM2: 0.5 },
  materials: [{ name: 'sand', unit: 'kg', perM2: 0.2 }],
  tools: ['broom'],
  cautions: ['Eye protection.'],
  forbids: ['rain'],
  skill: null,
  why: 'Moss is slippery.',
  missed: 'In autumn.',
}

/**
 * Of every address that takes a body a request that is accepted as the garden now stands; what it needs is made first. Each may be
 * asked for again and again.
 */
export function validWrites(
  practice: TestPractice,
  today: string,
): ReadonlyMap<Endpoint, () => Promise<Sent>> {
  const { gardenId } = practice
  const made = new Map<Endpoint, () => Promise<Sent>>()
  let nth = 0
  const own: string[] = []
  const ownId = () => {
    own.push(randomUUID())
    return own.at(-1)!
  }
  const name = (of: string) => `${of} ${++nth}`
  const yesterday = addDays(today, -1)
  const garden = () => look<GardenView>(practice, '')
  const season = () => look<SeasonView>(practice, '/season')
  const valid = (
    endpoint: Endpoint,
    make: (
      garden: GardenView,
    ) => Promise<{ params?: Record<string, string>; body: Record<string, unknown>; file?: Buffer }>,
  ) => {
    made.set(endpoint, async () => {
      const { params, body, file } = await make(await garden())
      return { path: pathOf(endpoint, { gardenId, ...params }), body, file, ownIds: own.splice(0) }
    })
  }
  const feature = (g: GardenView, named: string): FeatureView => g.features.find((f) => f.name === named)!
  const planting = (g: GardenView) => g.plantings.filter((p) => p.livingCount > 0)[nth++ % 5]!
  /** One that lives in a place. */
  const livingIn = (g: GardenView, placeId: string) =>
    g.plantings.find((p) => p.placeId === placeId && p.livingCount > 0)!.id
  const pear = (g: GardenView) => ({ featureId: feature(g, 'Pear').id })
  const openJob = async (is: (j: SeasonView['jobs'][number]) => boolean = () => true) => {
    const open = (await season()).jobs.filter((j) => j.state === 'open' && j.after.length === 0 && is(j))
    const job = open[nth++ % Math.max(1, open.length)]
    if (!job) throw new Error('No job is open')
    return job
  }
  const drawn = (named: string) => ({
    feature: {
      type: 'Feature',
      properties: {
        kind: 'tree',
        name: named,
        heightM: 4,
        crownRadiusM: 1.5,
        from: '2015-03-01',
        note: 'A gift.',
      },
      geometry: { type: 'Point', coordinates: [18, 6] },
    },
  })
  const enter = async (g: GardenView) =>
    (await write<{ plantingIds: string[] }>(practice, '/plantings', entering(newPlanting(g)))).plantingIds[0]!
  const newPlanting = (g: GardenView) => ({
    tag: `F-${++nth}`,
    taxonBotanical: 'Hosta sieboldiana',
    placeId: feature(g, 'North bed').id,
    count: 5,
    plantedOn: addDays(today, -400),
    source: 'bought',
    x: 9,
    y: 22.6,
    radiusM: 0.5,
  })

  const { sessions, gardens, plan, climates, plantings, bench, taxa, light, verdicts } = endpoints
  const { seasons, watering, containers, rules, crews, walks, photos, pictures, records, reworks, prices } =
    endpoints
  valid(sessions.setClock, async () => ({ body: { useRealToday: false } }))
  valid(sessions.prefer, async () => ({ body: { names: 'botanical first' } }))
  valid(gardens.create, async () => ({
    body: { name: name('Garden'), latitude: 51, longitude: 0, timeZone: 'Europe/London', northDeg: 3 },
  }))
  const renamed = () => ({
    plan: shortRecord.plan.replace('Walled Court', name('Court')),
    plantings: shortRecord.plantings,
    weather: shortRecord.weather.split('\n').slice(0, 40).join('\n'),
  })
  valid(gardens.previewImport, async () => ({ body: renamed() }))
  valid(gardens.import, async () => ({ body: renamed() }))
  valid(gardens.amend, async () => ({ body: { northDeg: 38, latitude: 52.1, longitude: 1.3 } }))
  valid(gardens.withdraw, async () => {
    const called = name('Garden')
    const { body } = await practice.head.post('/gardens', {
      name: called,
      latitude: 51,
      longitude: 0,
      timeZone: 'Europe/London',
    })
    return { params: { gardenId: body.gardenId }, body: { name: called } }
  })
  valid(gardens.addMember, async () => ({
    body: {
      name: name('Helper'),
      email: `helper${++nth}@example.invalid`,
      password: 'a long enough one',
      role: 'keeper',
    },
  }))
  const put = async (from = drawn(name('Tree'))) => {
    const id = randomUUID()
    await write(practice, '/plan/edits', drawing(from, id))
    return { id }
  }
  valid(plan.edit, async (g) => {
    const court = feature(g, 'Court border')
    return {
      body: {
        ...drawing(drawn(feature(g, 'Pear').name + ++nth), (await put()).id),
        carried: [{ placeId: court.id, by: [1, 0, 0, 1, 0, 0] }],
        rehomed: [],
        settled: [],
        withdrawn: [],
        from: yesterday,
      },
    }
  })
  valid(plan.changeFeature, async (g) => ({
    params: pear(g),
    body: { date: yesterday, change: { heightM: 5, crownRadiusM: 2 } },
  }))
  valid(plan.endFeature, async (g) => ({
    params: { featureId: feature(g, 'Old workshop').id },
    body: { to: addDays(today, -40) },
  }))
  valid(plan.recordEvent, async (g) => ({
    params: pear(g),
    body: { date: yesterday, action: 'thinned', fraction: 0.1 },
  }))
  valid(climates.bringWeather, async () => ({ body: { weather: shortRecord.weather } }))
  valid(climates.sayKnown, async () => ({
    body: { lastFrost: '05-14', firstFrost: '10-02', coldestC: -18 },
  }))
  valid(climates.measureSoil, async (g) => ({
    body: { day: yesterday, celsius: 11.5, placeId: feature(g, 'North bed').id },
  }))
  valid(climates.bringSoil, async () => ({
    body: { csv: `day,celsius,place\n${addDays(today, -(10 + (++nth % 300)))},9.5,North bed\n` },
  }))
  valid(plantings.add, async (g) => ({ body: entering(newPlanting(g)) }))
  valid(plantings.amend, async (g) => {
    return { body: amending(await enter(g), { ...newPlanting(g), role: 'edging' }) }
  })
  valid(plantings.withdraw, async (g) => ({ body: { plantingIds: [await enter(g)] } }))
  valid(plantings.note, async (g) => ({
    params: { plantingId: planting(g).id },
    body: { on: yesterday, note: 'Staked after the gale.' },
  }))
  const waiting = {
    taxonBotanical: 'Hosta sieboldiana',
    count: 3,
    since: addDays(today, -3),
    note: 'in shade',
  }
  valid(bench.put, async () => ({ body: waiting }))
  valid(bench.gone, async () => {
    await write(practice, '/bench', waiting)
    const [one] = await look<{ id: string }[]>(practice, '/bench')
    return { params: { benchId: one!.id }, body: { on: today, gone: 'given away' } }
  })
  const ownKind = async (botanical: string) => {
    const { body } = await practice.head.get('/taxa')
    const known = (body as { botanical: string; own: unknown }[]).find(
      (t) => t.botanical === 'Hosta sieboldiana',
    )!
    const { own: _, ...taxon } = known
    return { ...taxon, botanical, common: 'fuzzed hosta', synonyms: [] }
  }
  valid(taxa.save, async () => ({ body: { taxon: await ownKind(name('Hosta probata')) } }))
  valid(taxa.bring, async () => {
    const { text } = await practice.head.get('/taxa.csv')
    const [columns, ...rows] = text.split('\r\n')
    const row = rows.find((r) => r.startsWith('Hosta sieboldiana,'))
    return { body: { csv: `${columns}\r\n${row}\r\n` } }
  })
  valid(taxa.remove, async () => {
    const botanical = name('Hosta removenda')
    await practice.head.post('/taxa', { taxon: await ownKind(botanical) })
    return { body: { botanical } }
  })
  valid(light.keepWhatIf, async (g) => ({
    body: {
      name: name('Without'),
      suppositions: [{ obstructionId: feature(g, 'Pear').id, gone: true, heightM: 3, movedM: [1, -2] }],
    },
  }))
  valid(light.takeReading, async (g) => ({
    body: {
      at: `${yesterday}T11:30:00Z`,
      x: 5.5,
      y: 11.6,
      placeId: feature(g, 'Court border').id,
      seen: 'shade',
    },
  }))
  valid(light.bringLog, async (g) => {
    const stood = { x: 5.5, y: 11.6, z: 0 }
    const fromMs = Date.parse(`${addDays(today, -20)}T00:00Z`)
    const samples = simulateLog(
      sceneOf(g.garden, g.features),
      stood,
      { fromMs, days: 4, everyMin: 30 },
      seededRandom(++nth),
    )
    const lines = samples.map((s) => `${new Date(s.instantMs).toISOString().slice(0, 16)}Z,${s.lux}`)
    const placeId = feature(g, 'Court border').id
    return {
      body: { name: name('logger'), x: 5.5, y: 11.6, placeId, csv: ['time,lux', ...lines].join('\n') },
    }
  })
  // A logger that stands where another stood writes the very same file.
  valid(light.simulateLog, async (g) => ({
    body: {
      x: 4 + (++nth % 400) / 100,
      y: 11.6,
      placeId: feature(g, 'Court border').id,
      name: name('logger'),
    },
  }))
  valid(light.decideSuspicion, async (g) => {
    const suspicionId = randomUUID()
    const cause = { what: 'gone', obstructionId: feature(g, 'Pear').id, on: yesterday }
    await practice.db('suspicions').insert({
      id: suspicionId,
      garden_id: gardenId,
      key: suspicionId,
      kind: 'unrecorded',
      detail: JSON.stringify({ kind: 'unrecorded', cause, posterior: 0.9, explains: 5, used: 6 }),
      state: 'open',
      first_seen: yesterday,
      last_seen: yesterday,
    })
    return { params: { suspicionId }, body: { state: 'dismissed' } }
  })
  valid(verdicts.decide, async (g) => ({
    body: {
      plantingId: planting(g).id,
      on: today,
      choice: 'otherwise',
      action: 'keep',
      reason: 'It is liked where it is.',
    },
  }))
  valid(verdicts.decideMany, async (g) => ({
    body: {
      plantingIds: [planting(g).id],
      on: today,
      word: { choice: 'wait', until: addDays(today, 90) },
    },
  }))
  valid(verdicts.saySuccessor, async (g) => {
    const ailing = {
      type: 'Feature',
      properties: {
        ...feature(g, 'Pear').properties,
        kind: 'tree',
        name: name('Old ash'),
        heightM: 8,
        crownRadiusM: 3,
        health: 'failing',
      },
      geometry: { type: 'Point', coordinates: [30, 30] },
    }
    const { id } = await put({ feature: ailing } as never)
    return { params: { subjectId: id }, body: { state: 'dismissed' } }
  })
  valid(seasons.recordPast, async (g) => {
    const { id, placeId } = planting(g)
    return {
      body: {
        id: ownId(),
        on: addDays(today, -300),
        operation: 'propagate',
        placeId,
        plantingIds: [id],
        note: 'Cuttings.',
      },
    }
  })
  valid(seasons.setCalendarLink, async () => ({ body: { on: true } }))
  valid(seasons.recordDone, async () => {
    const job = await openJob()
    await write(practice, `/jobs/${job.id}/done`, { on: today, minutes: 5 })
    await write(practice, `/jobs/${job.id}/take-back`)
    return {
      params: { jobId: job.id },
      body: {
        on: today,
        minutes: 13,
        used: [{ name: 'compost', amount: 2, unit: 'l' }],
        note: 'Wet ground.',
      },
    }
  })
  valid(seasons.leaveOut, async () => {
    const job = await openJob((j) => j.ruleId !== null)
    await write(practice, `/jobs/${job.id}/leave-out`, { leaveOut: true })
    return { params: { jobId: job.id }, body: { leaveOut: false } }
  })
  valid(seasons.pin, async () => {
    const job = await openJob((j) => j.plannedOn !== null && j.plannedOn > today)
    return { params: { jobId: job.id }, body: { day: job.plannedOn } }
  })
  valid(seasons.takeSchedule, async () => {
    const { runId } = await write<{ runId: string }>(practice, '/schedule-runs')
    await workOutWaiting(practice)
    const { run } = await look<{ run: ScheduleRunView | null }>(practice, '/schedule-runs/latest')
    if (run?.state !== 'ready') throw new Error(`The plan is ${run?.state}`)
    return { params: { runId }, body: { take: false } }
  })
  valid(watering.give, async (g) => ({
    body: { on: today, given: [{ plantingId: planting(g).id, litres: 10 }] },
  }))
  const potOnPlan = async () => {
    const potId = ownId()
    const at = { type: 'Point', coordinates: [4 + nth, 20] }
    await write(practice, '/plan/edits', {
      parts: [
        {
          id: potId,
          feature: {
            type: 'Feature',
            properties: {
              kind: 'container',
              name: name('Pot'),
              shape: 'tapered',
              diameterM: 0.4,
              rimHeightM: 0.4,
            },
            geometry: at,
          },
        },
      ],
    })
    return potId
  }
  valid(containers.fill, async () => ({ body: fillOf(await potOnPlan(), { on: '2020-05-20' }) }))
  valid(containers.bring, async () => ({
    body: { csv: `name,x_m,y_m,diameter_m\n${name('Pot')},${4 + nth},21,0.4\n` },
  }))
  const felt = (containerId: string) => ({ containerId, on: '2020-06-20', kind: 'felt', felt: 'dry' })
  valid(containers.check, async () => ({ body: felt(await potOnPlan()) }))
  valid(containers.withdrawCheck, async () => {
    const { id } = await write<{ id: string }>(practice, '/containers/checks', felt(await potOnPlan()))
    return { params: { checkId: id }, body: {} }
  })
  valid(rules.saveOwn, async () => ({ body: { ...ownRule } }))
  const shipped = async () =>
    (await look<RuleView[]>(practice, '/rules')).find((r) => r.touches.length > 0 && r.isOn)!
  valid(rules.change, async () => ({
    params: { rule: (await shipped()).id },
    body: { adjusted: { shiftDays: 6 } },
  }))
  valid(rules.askJob, async () => {
    const { jobs } = await season()
    const isThere = (rule: string, subjectId: string) =>
      jobs.some((j) => j.ruleId === rule && (j.placeId === subjectId || j.plantingIds.includes(subjectId)))
    const left = (await look<RuleView[]>(practice, '/rules')).flatMap(({ id: rule, touches }) =>
      touches.filter((t) => !isThere(rule, t.id)).map((t) => ({ rule, subjectId: t.id })),
    )
    const { rule, subjectId } = left[++nth % left.length]!
    return { params: { rule }, body: { subjectId } }
  })
  valid(rules.followSchool, async () => ({ body: { school: 'cutting-back', choice: 'autumn' } }))
  valid(crews.name, async () => ({ body: { name: 'The two of us', travelMinutes: 15 } }))
  valid(crews.share, async () => {
    const other = { name: name('Garden'), latitude: 51, longitude: 0, timeZone: 'Europe/London' }
    const { body } = await practice.head.post('/gardens', other)
    const crew = await look<CrewView>(practice, '/crew')
    if (crew.gardens.length + crew.others > 1) await write(practice, '/crew/share', { withGardenId: null })
    return { body: { withGardenId: body.gardenId } }
  })
  valid(crews.savePerson, async () => ({
    body: { name: name('Hand'), skills: ['pruning'], minutesByWeekday: [0, 60, 0, 60, 0, 0, 0] },
  }))
  valid(crews.addAbsence, async () => {
    const from = addDays(today, ++nth * 20)
    return { body: { personId: null, from, to: addDays(from, 3), reason: 'course' } }
  })
  valid(crews.setDay, async () => ({ body: { day: addDays(today, 5), minutes: 90 } }))
  valid(walks.note, async (g) => ({
    body: {
      entries: [
        {
          kind: 'planting',
          id: ownId(),
          plantingId: planting(g).id,
          on: yesterday,
          at: `${yesterday}T09:00:00Z`,
          rating: 3,
          signs: ['wilting'],
          note: 'After the heat.',
        },
        {
          kind: 'place',
          id: ownId(),
          placeId: feature(g, 'Court border').id,
          on: yesterday,
          at: `${yesterday}T09:05:00Z`,
          soil: 'dry',
          holesM: [0.6],
        },
      ],
    },
  }))
  const flat = () =>
    sharp({ create: { width: 32, height: 24, channels: 3, background: { r: ++nth % 256, g: 120, b: 40 } } })
      .jpeg()
      .toBuffer()
  valid(photos.add, async (g) => {
    return {
      body: {
        id: ownId(),
        on: yesterday,
        at: `${yesterday}T09:00:00Z`,
        plantingId: planting(g).id,
      },
      file: await flat(),
    }
  })
  const newPicture = async () => ({
    body: { id: ownId(), name: name('Survey') },
    file: await flat(),
  })
  valid(pictures.add, newPicture)
  valid(pictures.amend, async () => {
    const { body, file } = await newPicture()
    const { body: added } = await practice.head.post(`/gardens/${gardenId}/plan/pictures`, body, { file })
    return {
      params: { pictureId: added.pictureId },
      body: {
        name: name('Plan'),
        laying: {
          how: 'two points',
          a: { px: [1, 2], at: [0, 0] },
          b: [30, 20],
          lengthM: 7,
          turnDeg: 12,
        },
        strength: 0.4,
        isShown: true,
      },
    }
  })
  const beginsRework = async (g: GardenView) => {
    const rework = beginning(feature(g, 'Court border').id, { name: name('Scheme') })
    own.push(rework.id, rework.schemes[0]!.id)
    return { body: rework }
  }
  const someRework = async (g: GardenView) => {
    const { body } = await beginsRework(g)
    own.length = 0
    await write(practice, '/reworks', body)
    return { reworkId: body.id, schemeId: body.schemes[0]!.id }
  }
  valid(reworks.begin, beginsRework)
  valid(reworks.addScheme, async (g) => ({
    params: await someRework(g),
    body: { id: ownId(), said: saidOf({ name: name('Scheme') }) },
  }))
  valid(reworks.keepScheme, async (g) => ({
    params: await someRework(g),
    body: {
      said: saidOf({
        name: name('Scheme'),
        leaving: [{ plantingId: planting(g).id, how: 'leaves', to: { to: 'bench' }, worth: 2 }],
        drifts: [
          {
            id: randomUUID(),
            botanical: 'Hosta sieboldiana',
            count: 5,
            from: 'bench',
            ground: [[44, 10, 14]],
            isDrawn: true,
          },
        ],
        between: [{ id: randomUUID(), botanical: 'Galanthus nivalis', count: 30, from: 'library' }],
        viewedFrom: [180],
        seenFromM: 6,
        baseLine: [
          [0, 11],
          [12, 11],
        ],
        hourPrice: 3000,
      }),
    },
  }))
  valid(reworks.stepScheme, async (g) => {
    const params = await someRework(g)
    await write(practice, `/reworks/${params.reworkId}/schemes/${params.schemeId}/keep`, {
      said: saidOf({ name: name('Scheme') }),
    })
    return { params, body: { to: 'before' } }
  })
  /** A scheme of which something leaves. */
  const leavingScheme = async (g: GardenView) => {
    const rework = beginning(feature(g, 'Court border').id, { leaving: said(g) })
    await write(practice, '/reworks', rework)
    const schemeId = rework.schemes[0]!.id
    const { revision_id: revisionId } = await practice.db('schemes').where({ id: schemeId }).first()
    return { params: { reworkId: rework.id, schemeId }, body: { revisionId: revisionId as string } }
  }
  const said = (g: GardenView) => [
    {
      plantingId: livingIn(g, feature(g, 'Court border').id),
      how: 'leaves' as const,
      to: { to: 'gone' as const },
      worth: 1,
    },
  ]
  valid(reworks.steps, leavingScheme)
  valid(reworks.acceptScheme, leavingScheme)
  valid(reworks.callOffScheme, async (g) => {
    const { params, body } = await leavingScheme(g)
    await write(practice, `/reworks/${params.reworkId}/schemes/${params.schemeId}/accept`, body)
    return { params, body: {} }
  })
  valid(reworks.setSchemeLink, async (g) => ({
    params: await someRework(g),
    body: { until: addDays(today, 30) },
  }))
  const wished = {
    tallestM: 2,
    kinds: { least: 3, most: 6 },
    drifts: 'odd',
    budget: 90_000,
    evergreenShare: 0.1,
    layerShares: { front: 0.1 },
    scented: 1,
    wildlife: 1,
    scheme: { kind: 'neighbouring', hue: 280 },
    harmlessTo: ['dogs'],
    leftBy: ['deer'],
    locked: ['Nepeta × faassenii'],
    barred: ['Vinca minor'],
  }
  const bed = (g: GardenView) => ({ featureId: feature(g, 'Court border').id })
  const leaving = (g: GardenView) => [{ plantingId: planting(g).id, to: { to: 'bench' }, worth: 2 }]
  const choice = (g: GardenView) => ({
    leavingIds: [planting(g).id],
    dividing: [{ plantingId: planting(g).id, shoots: 30, acrossM: 0.4 }],
    wishes: wished,
    areaM2: 5,
  })
  valid(reworks.relocate, async (g) => ({ body: { leaving: leaving(g) } }))
  valid(reworks.ways, async (g) => {
    const [one] = leaving(g)
    return { body: { leaving: [one], plantingId: one!.plantingId } }
  })
  valid(reworks.inHand, async (g) => ({
    params: bed(g),
    body: { dividing: [{ plantingId: planting(g).id, shoots: 30 }] },
  }))
  valid(reworks.tray, async (g) => ({
    params: bed(g),
    body: { ...choice(g), chosen: [{ botanical: 'Nepeta × faassenii', count: 5 }] },
  }))
  valid(reworks.palette, async (g) => ({
    params: bed(g),
    body: { ...choice(g), apart: [['Nepeta × faassenii']] },
  }))
  const newOffer = () => ({
    id: ownId(),
    supplier: name('Nursery'),
    item: 'Hosta sieboldiana',
    packs: [{ name: '9 cm pot', holds: 1, price: 420 }],
    pricedOn: yesterday,
  })
  valid(prices.say, async () => ({ body: newOffer() }))
  valid(prices.withdraw, async () => {
    const offer = newOffer()
    own.length = 0
    await practice.head.post('/prices', offer)
    return { body: { id: offer.id } }
  })
  valid(photos.addStandpoint, async (g) => ({
    body: {
      name: name('Gate'),
      framing: 'The pot on the left.',
      x: 4,
      y: 9,
      placeId: feature(g, 'Court border').id,
    },
  }))
  valid(records.setShare, async () => ({
    body: { sign: 'wilting', cause: 'drier', share: 0.4 + (++nth % 50) / 100, why: 'Sand.' },
  }))
  valid(records.strikeOff, async (g) => {
    const plantingId = await enter(g)
    return { params: { plantingId }, body: { on: today, note: 'Frozen.' } }
  })
  valid(records.found, async (g) => {
    const plantingId = await enter(g)
    await write(practice, `/plantings/${plantingId}/strike-off`, { on: today })
    return { params: { plantingId }, body: { on: today, note: 'Late to show.' } }
  })
  valid(records.judgeTrial, async (g) => ({
    params: { plantingId: planting(g).id },
    body: { on: today, outcome: 'trial', reason: 'New here.' },
  }))
  valid(records.treat, async (g) => ({
    params: { plantingId: planting(g).id },
    body: { on: addDays(today, -90 - (++nth % 200)), what: 'cut by half' },
  }))
  valid(records.bring, async () => ({
    body: { csv: `id,tag,date,rating,note\n${ownId()},W-02,${addDays(today, -60)},3,seen\n` },
  }))
  return made
}
