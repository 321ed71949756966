import { z } from 'zod'
import { aspects, whatIsKnown } from './aspects.ts'
import {
  fileProblem,
  fileText,
  gardenPath,
  head,
  id,
  isoDay,
  keeper,
  onDay,
  shortText,
  timeZone,
} from './basics.ts'
import { asks, reads, writes } from './endpoint.ts'
import { roles } from './roles.ts'
import { account } from './session.ts'
import { climate, feature, knownClimate, planFeature, planting, schools, taxon } from './worked.ts'

const onEarth = {
  latitude: z.number().min(-90).max(90),
  longitude: z.number().min(-180).max(180),
}

const gardenSummary = z.strictObject({
  id,
  name: z.string(),
  ...onEarth,
  timeZone: z.string(),
  northDeg: z.number(),
  role: z.enum(roles),
})
export type GardenSummary = z.infer<typeof gardenSummary>

export type FeatureView = z.infer<typeof feature>
export type PlantingView = z.infer<typeof planting>

/** A garden as it stands on a day. */
const gardenView = z.strictObject({
  garden: gardenSummary,
  features: z.array(feature),
  plantings: z.array(planting),
  climate: climate.nullable(),
  climateSource: z.string().nullable(),
  /** What the gardener knows of it. */
  knownClimate: knownClimate.nullable(),
  /** The garden's choices where good gardeners differ; a school that is absent follows its usual one. */
  schools,
})
export type GardenView = z.infer<typeof gardenView>

const said = z.object({ name: shortText, ...onEarth, timeZone, northDeg: z.number().min(-360).max(360) })
export const gardenRequest = said.extend({ northDeg: said.shape.northDeg.default(0) })

const withdrawnGarden = z.strictObject({
  id,
  name: z.string(),
  /** On its own calendar. */
  withdrawnOn: isoDay,
})
export type WithdrawnGarden = z.infer<typeof withdrawnGarden>

/** A town, to begin a garden at. */
const town = z.strictObject({
  name: z.string(),
  /** Two letters of ISO 3166. */
  country: z.string(),
  /** The state, where people tell towns apart by it. */
  region: z.string().nullable(),
  ...onEarth,
  timeZone: z.string(),
})
export type TownView = z.infer<typeof town>

/** A garden that was saved, with where its climate is from. */
const savedGarden = z.strictObject({ gardenId: id, climate: z.string() })
export type SavedGarden = z.infer<typeof savedGarden>

const importRequest = z.object({
  plan: fileText,
  plantings: fileText.optional(),
  weather: fileText.optional(),
})
export type ImportRequest = z.infer<typeof importRequest>

const importPreview = z.strictObject({
  gardenName: z.string(),
  ...onEarth,
  northDeg: z.number(),
  /** The day the plan is shown at. */
  today: isoDay,
  counts: z.record(z.string(), z.number()),
  features: z.array(planFeature),
  /** `x` and `y` are absent for plants in pots, which stand where the pot stands. */
  plantings: z.array(
    z.strictObject({
      tag: z.string(),
      place: z.string(),
      taxon,
      count: z.number(),
      plantedOn: isoDay,
      x: z.number().optional(),
      y: z.number().optional(),
    }),
  ),
  weatherDays: z.number(),
})
export type ImportPreview = z.infer<typeof importPreview>
const importPreviewResult = z.discriminatedUnion('ok', [
  z.strictObject({ ok: z.literal(true), preview: importPreview }),
  z.strictObject({ ok: z.literal(false), problems: z.array(fileProblem) }),
])

const versionsView = z.strictObject({
  versions: z.record(z.enum(aspects), z.string()),
  /** The work of the garden is not yet that of the garden as it stands: never worked out, or being brought up to date. */
  isBehind: z.boolean(),
})
export type VersionsView = z.infer<typeof versionsView>

/** What is told of a garden beside whichever screen of it is open. */
const gardenNow = z.strictObject({
  /** Plantings outside the light they like. */
  outside: z.number(),
  /** Proposals on which nobody has decided. */
  openVerdicts: z.number(),
  openJobs: z.number(),
  suspicions: z.number(),
  /** How many jobs may be done, from each day on which that changes. */
  openWindows: z.array(z.tuple([isoDay, z.number()])),
  /** Days with somebody to work, each by how far it lies ahead of the garden's today. */
  workingDays: z.array(z.int().min(0)),
})
export type GardenNow = z.infer<typeof gardenNow>

const member = z.strictObject({ id, name: z.string(), email: z.string(), role: z.enum(roles) })
export type MemberView = z.infer<typeof member>

/** Gardens, where they lie, who belongs to them. */
export const gardenEndpoints = {
  list: reads('/gardens', 'signed in', { answer: z.array(gardenSummary), restsOn: ['plan', 'members'] }),
  create: writes('/gardens', 'leads practice', { body: gardenRequest, answer: savedGarden }),
  /** Towns whose names begin with what is asked, the largest first. */
  findTowns: reads('/towns', 'signed in', {
    query: z.object({ name: shortText }),
    answer: z.array(town),
    restsOn: [],
  }),
  previewImport: asks('/imports/preview', 'leads practice', {
    body: importRequest,
    answer: importPreviewResult,
  }),
  import: writes('/imports', 'leads practice', { body: importRequest, answer: savedGarden }),
  read: reads(gardenPath, keeper, {
    query: onDay,
    answer: gardenView,
    restsOn: ['plan', 'plantings', 'climate', 'rules', 'library', 'members'],
  }),
  amend: writes(`${gardenPath}/amend`, head, {
    body: said.partial(),
    sees: gardenSummary.pick({ name: true, latitude: true, longitude: true, timeZone: true, northDeg: true }),
  }),
  /** How often each aspect of it has changed: what a device was told stays true while those it rests on stand still. */
  versions: reads(`${gardenPath}/versions`, keeper, { answer: versionsView, restsOn: [] }),
  now: reads(`${gardenPath}/now`, keeper, {
    query: onDay,
    answer: gardenNow,
    restsOn: [...whatIsKnown, 'decisions', 'jobs', 'days', 'crew', 'suspicions', 'prices'],
  }),
  /** A garden is taken out by its name. */
  withdraw: writes(`${gardenPath}/withdraw`, head, { body: z.object({ name: z.string().max(200) }) }),
  listWithdrawn: reads('/withdrawn-gardens', 'leads practice', {
    answer: z.array(withdrawnGarden),
    restsOn: ['members'],
  }),
  restore: writes('/withdrawn-gardens/:withdrawnId/restore', 'leads practice'),
  listMembers: reads(`${gardenPath}/people`, head, { answer: z.array(member), restsOn: ['members'] }),
  addMember: writes(`${gardenPath}/people`, head, {
    body: z.object({ ...account, role: z.enum(roles) }),
  }),
}
