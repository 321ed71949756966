import type { FeatureView, PlanEdit, PlantingView } from '@border/contract'
import {
  carried,
  carriedFeature,
  cutBetween,
  drawAs,
  drawnOf,
  flattened,
  followedBy,
  isPlace,
  joinedOutlines,
  nearestInside,
  ringOf,
  strayedFrom,
  withoutId,
  type Affine,
  type Drawn,
  type Geometry,
  type PlanFeature,
  type Point,
  type Strayed,
} from '@border/core'
import { shapeOf, type DrawnKind } from './kinds.ts'
import { completed, usuallySaid, withSaid } from './said.ts'

/** A part of the plan as it is being put otherwise. */
export interface DraftPart {
  id: string
  /** Undefined where it is new. */
  was: FeatureView | undefined
  /** Null where it goes. */
  now: PlanFeature | null
}

/** What is being changed and not kept yet: the part in hand first, and what else changes with it. */
export interface Draft {
  parts: readonly DraftPart[]
  /** Where the part in hand was moved, turned or mirrored whole: what grows in it goes along. */
  carriedBy: Affine | undefined
  /** What grows in the one goes to the other. */
  rehomed: readonly { from: string; to: string }[]
  /** Plantings put elsewhere one by one. */
  settled: ReadonlyMap<string, { placeId: string; x: number; y: number }>
  /** Plantings that go with their place. */
  withdrawn: readonly string[]
  /** More like the one in hand, in a row: containers that are put on the plan at once and numbered. */
  alike?: Alike | undefined
}

/** Others like a new part, each with its id. */
export interface Alike {
  ids: readonly string[]
  /** From the middle of one to the middle of the next, metres. */
  apartM: number
  /** The way that the row runs: 0 to the plan's top, clockwise. */
  towardsDeg: number
  /** What the first is numbered. */
  first: number
}

const NOTHING = { carriedBy: undefined, rehomed: [], settled: new Map(), withdrawn: [] }

/** What a new part of a kind is taken for until somebody says otherwise. */
const usualProperties = (kind: DrawnKind): Record<string, unknown> =>
  Object.entries(usuallySaid(kind)).reduce<Record<string, unknown>>(
    (properties, [name, value]) => withSaid({ kind, properties }, name, value),
    {},
  )

/** A part that is there, to be put otherwise. */
export const draftOf = (was: FeatureView): Draft => ({
  ...NOTHING,
  parts: [{ id: was.id, was, now: withoutId(was) }],
})

/** A part that is not there yet, with nothing drawn of it. */
export const newDraft = (id: string, kind: DrawnKind): Draft => ({
  ...NOTHING,
  parts: [
    {
      id,
      was: undefined,
      now: {
        kind,
        name: '',
        from: null,
        to: null,
        geometry: emptyGeometry(kind),
        properties: usualProperties(kind),
      },
    },
  ],
})

/** Nothing drawn yet of a kind. */
export function emptyGeometry(kind: DrawnKind): Geometry {
  const type = shapeOf(kind)
  if (type === 'Point') return { type, coordinates: [NaN, NaN] }
  return type === 'LineString' ? { type, coordinates: [] } : { type, coordinates: [[]] }
}

export const inHand = ({ parts }: Draft): DraftPart => parts[0]!

/** All parts of a draft: where more are to be alike these too, numbered along their row. */
export function allParts(draft: Draft): readonly DraftPart[] {
  const { alike, parts } = draft
  const { id, now } = inHand(draft)
  const at = pointNow(draft)
  if (!alike || alike.ids.length === 0 || !now || !at) return parts
  const rad = (alike.towardsDeg * Math.PI) / 180
  const row = [id, ...alike.ids].map((one, i): DraftPart => {
    const along = i * alike.apartM
    const rounded = (v: number) => Math.round(v * 1000) / 1000
    return {
      id: one,
      was: undefined,
      now: {
        ...now,
        name: `${now.name.trim()} ${alike.first + i}`,
        geometry: {
          type: 'Point',
          coordinates: [rounded(at[0] + along * Math.sin(rad)), rounded(at[1] + along * Math.cos(rad))],
        },
      },
    }
  })
  return [...row, ...parts.slice(1)]
}

/** So many in all like the one in hand; those that are there keep their ids. @param taken names on the plan: numbers go on from them */
export function madeAlike(draft: Draft, count: number, taken: readonly string[], apartM: number): Draft {
  const { alike } = draft
  const name = inHand(draft).now?.name.trim() ?? ''
  const numbers = taken.flatMap((t) =>
    t.startsWith(`${name} `) && /^\d+$/.test(t.slice(name.length + 1))
      ? [Number(t.slice(name.length + 1))]
      : [],
  )
  const ids = Array.from({ length: Math.max(0, count - 1) }, (_, i) => alike?.ids[i] ?? crypto.randomUUID())
  const towardsDeg = alike?.towardsDeg ?? 90
  return {
    ...draft,
    alike:
      ids.length === 0
        ? undefined
        : { ids, apartM: alike?.apartM ?? apartM, towardsDeg, first: Math.max(0, ...numbers) + 1 },
  }
}

/** What is drawn of the part in hand: undefined of what has a point, or goes. */
export function drawnNow(draft: Draft): Drawn | undefined {
  const { now } = inHand(draft)
  if (!now || now.geometry.type === 'Point') return undefined
  const isBegun = now.geometry.type === 'Polygon' ? now.geometry.coordinates[0]!.length > 0 : true
  return isBegun ? drawnOf(now) : { handles: [], closed: true }
}

/** Where a part of one point stands; undefined before it stands anywhere. */
export function pointNow(draft: Draft): Point | undefined {
  const { now } = inHand(draft)
  if (now?.geometry.type !== 'Point') return undefined
  const [x, y] = now.geometry.coordinates
  return Number.isNaN(x) ? undefined : [x, y]
}

const withNow = (draft: Draft, now: PlanFeature): Draft => ({
  ...draft,
  parts: draft.parts.with(0, { ...inHand(draft), now }),
})

/** Drawn otherwise. */
export const drawnAs = (draft: Draft, drawn: Drawn): Draft =>
  withNow(draft, drawAs(inHand(draft).now!, drawn))

/** Standing elsewhere. */
export const standingAt = (draft: Draft, [x, y]: Point): Draft => {
  const at = pointNow(draft)
  const rounded = (v: number) => Math.round(v * 1000) / 1000
  const moved = withNow(draft, {
    ...inHand(draft).now!,
    geometry: { type: 'Point', coordinates: [rounded(x), rounded(y)] },
  })
  return at ? { ...moved, carriedBy: alongWith(draft, [1, 0, 0, 1, x - at[0], y - at[1]]) } : moved
}

/** Moved, turned or mirrored whole, and what grows in it with it. */
export const carriedWhole = (draft: Draft, by: Affine): Draft => ({
  ...withNow(draft, carriedFeature(inHand(draft).now!, by)),
  carriedBy: alongWith(draft, by),
})

const alongWith = ({ carriedBy }: Draft, by: Affine): Affine => (carriedBy ? followedBy(carriedBy, by) : by)

/** Said otherwise: its name, kind, days and what is known of it. */
export const saidAs = (
  draft: Draft,
  said: Partial<Pick<PlanFeature, 'kind' | 'name' | 'from' | 'to' | 'properties'>>,
): Draft => {
  const now = inHand(draft).now!
  const kept = Object.fromEntries(
    ['handles', 'earlier', 'events']
      .filter((key) => now.properties[key] !== undefined)
      .map((key) => [key, now.properties[key]]),
  )
  return withNow(draft, {
    ...now,
    ...said,
    properties: said.properties ? { ...said.properties, ...kept } : now.properties,
  })
}

/** The part in hand off the plan, with the plantings that are to go with it. */
export const goneWith = (draft: Draft, plantingIds: readonly string[]): Draft => ({
  ...draft,
  parts: draft.parts.with(0, { ...inHand(draft), now: null }),
  withdrawn: plantingIds,
})

type Made = { ok: true; draft: Draft } | { ok: false; says: string }

/** Cut in two from one handle to another; the second part is new. */
export function splitDraft(draft: Draft, i: number, j: number, id: string, name: string): Made {
  const part = inHand(draft)
  const cut = cutBetween(drawnNow(draft)!, i, j)
  if (!cut.ok) return cut
  const [one, other] = cut.parts
  const rest = drawAs({ ...part.now!, name }, { handles: other, closed: true })
  const { earlier: _, ...properties } = rest.properties
  return {
    ok: true,
    draft: {
      ...drawnAs(draft, { handles: one, closed: true }),
      parts: [
        { ...part, now: drawAs(part.now!, { handles: one, closed: true }) },
        { id, was: undefined, now: { ...rest, properties } },
      ],
      rehomed: [...draft.rehomed, { from: part.id, to: id }],
    },
  }
}

/** Made one with another bed, which goes. */
export function joinDraft(draft: Draft, other: FeatureView): Made {
  const joined = joinedOutlines(drawnNow(draft)!, drawnOf(other)!)
  if (!joined.ok) return joined
  const grown = drawnAs(draft, { handles: joined.handles, closed: true })
  return {
    ok: true,
    draft: {
      ...grown,
      parts: [...grown.parts, { id: other.id, was: other, now: null }],
      rehomed: [...draft.rehomed, { from: other.id, to: inHand(draft).id }],
    },
  }
}

/** Where a planting would stand by a draft, and in which place. */
export function settledIn(draft: Draft, p: PlantingView): { placeId: string; x: number; y: number } {
  const own = draft.settled.get(p.id)
  if (own) return own
  const part = inHand(draft)
  if (p.placeId === part.id && draft.carriedBy) {
    const [x, y] = carried(draft.carriedBy, [p.x, p.y])
    return { placeId: p.placeId, x, y }
  }
  return { placeId: p.placeId, x: p.x, y: p.y }
}

/** Plantings that would stand outside the outlines of a draft, with where they would stand just inside. */
export function straysOf(draft: Draft, plantings: readonly PlantingView[]): Strayed<PlantingView>[] {
  const beds = draft.parts.filter((p) => p.now?.kind === 'bed' && isDrawn(p.now))
  const ids = new Set(draft.parts.map((p) => p.id))
  const rings = beds.map((p) => ringOf(p.now!.geometry))
  const [first] = rings
  if (!first) return []
  const here = plantings
    .filter((p) => ids.has(p.placeId) && !draft.withdrawn.includes(p.id))
    .map((p) => ({ ...p, ...settledIn(draft, p) }))
  // Of a bed cut in two each planting goes to the part that it lies in.
  const nowhere = here.filter((p) => rings.every((ring) => strayedFrom(ring, [p]).length > 0))
  return nowhere.map((planting) => ({ planting, inside: nearestInside(first, [planting.x, planting.y]) }))
}

const isDrawn = ({ geometry: g }: PlanFeature) => g.type !== 'Polygon' || g.coordinates[0]!.length > 3

/** Plantings put just inside. */
export const setInside = (draft: Draft, strays: readonly Strayed<PlantingView>[]): Draft => {
  const settled = new Map(draft.settled)
  for (const { planting, inside } of strays)
    settled.set(planting.id, { placeId: inHand(draft).id, x: inside[0], y: inside[1] })
  return { ...draft, settled }
}

/** Whether anything is otherwise than it was. */
export const isChanged = ({ parts, settled }: Draft): boolean =>
  settled.size > 0 ||
  parts.some(({ was, now }) => !was || !now || JSON.stringify(withoutId(was)) !== JSON.stringify(now))

/** Whether what changes could have happened in the garden on a day: something is drawn otherwise, or goes. */
export const couldHappen = ({ parts }: Draft): boolean =>
  parts.some(({ was, now }) => was && (!now || JSON.stringify(was.geometry) !== JSON.stringify(now.geometry)))

const sent = (f: PlanFeature) => ({
  type: 'Feature',
  properties: { ...completed(f), kind: f.kind, name: f.name, from: f.from, to: f.to },
  geometry: f.geometry,
})

/** A draft as it is sent. @param from the day it happened; a correction without one */
export function editOf(draft: Draft, from?: string): PlanEdit {
  const part = inHand(draft)
  return {
    parts: allParts(draft).map(({ id, now }) => ({ id, feature: now && sent(now) })),
    carried:
      draft.carriedBy && part.was && isPlace(part.was) ? [{ placeId: part.id, by: draft.carriedBy }] : [],
    rehomed: draft.rehomed.map((r) => ({ ...r })),
    settled: [...draft.settled].map(([plantingId, spot]) => ({ plantingId, ...spot })),
    withdrawn: [...draft.withdrawn],
    ...(from && { from }),
  }
}

/** Parts of a draft as they stood, to be told as seen. */
export const seenIn = ({ parts }: Draft): FeatureView[] => parts.flatMap(({ was }) => was ?? [])

/** Straight pieces of what is drawn, to draw them. */
export const piecesOf = (now: PlanFeature): Point[] => {
  const drawn = drawnOf(now)
  return drawn ? flattened(drawn) : []
}

// Undoing and redoing

/** A draft with how it came to be. */
export interface Drafting {
  draft: Draft
  past: readonly Draft[]
  future: readonly Draft[]
}

export const begun = (draft: Draft): Drafting => ({ draft, past: [], future: [] })

/** One step on. @param sameStep it goes on with the last step, as typing does */
export const stepped = ({ draft, past }: Drafting, next: Draft, sameStep = false): Drafting => ({
  draft: next,
  past: sameStep && past.length > 0 ? past : [...past, draft],
  future: [],
})

export const unstepped = (d: Drafting): Drafting | undefined => {
  const before = d.past.at(-1)
  return before && { draft: before, past: d.past.slice(0, -1), future: [d.draft, ...d.future] }
}

export const restepped = (d: Drafting): Drafting | undefined => {
  const [next, ...future] = d.future
  return next && { draft: next, past: [...d.past, d.draft], future }
}
