import type { IsoDate } from '../dates/index.ts'
import { daysBetween, isAlive } from '../dates/index.ts'
import { extentOf, type Extent, type Point, type Ring } from '../geometry/index.ts'

/**
 * What casts shade, as recorded: sizes as measured on a date, what has happened to it since, and how it grows.
 * Plan metres; heights above the ground of the plan.
 */
export type Obstruction = BuildingRecord | ScreenRecord | TreeRecord

interface Recorded {
  id: string
  name: string
  /** Lifeline `[from, to)`; a missing end is open. */
  from?: IsoDate | null
  to?: IsoDate | null
  heightM: number
  events?: readonly ObstructionEvent[]
  growth?: Growth | null
}

/** A building as the plan has it, with what happened to it. */
export interface BuildingRecord extends Recorded {
  kind: 'building'
  ring: Ring
  /** A flat slab reaching `depthM` beyond the footprint on every side, at `heightM` above ground. */
  overhang?: { depthM: number; heightM: number } | null
}

/** A wall, fence or hedge along a line. */
export interface ScreenRecord extends Recorded {
  kind: 'wall' | 'fence' | 'hedge'
  line: readonly Point[]
  /** Share of direct sun let through at each crossing, 0 to 1. */
  transmission: number
  thicknessM: number
}

export type CrownShape = 'ellipsoid' | 'cone' | 'column'

/** A tree: a crown on a trunk, metres. */
export interface TreeRecord extends Recorded {
  kind: 'tree'
  x: number
  y: number
  trunkRadiusM: number
  clearStemM: number
  crownRadiusM: number
  crownShape: CrownShape
  /** Share of direct sun passing a chord of the mean crown diameter. */
  transmissionInLeaf: number
  transmissionBare: number
  /** `MM-DD`; in leaf on `[leafFrom, leafTo)`, which may wrap over New Year. Both absent: always in leaf. */
  leafFrom?: string | null
  leafTo?: string | null
}

/**
 * Approach to a mature size: the gap to it shrinks exponentially, 95 % closed in `yearsToMature` (the
 * monomolecular or Mitscherlich curve). Sizes on the record are those of `measuredOn`.
 */
export interface Growth {
  measuredOn: IsoDate
  matureHeightM: number
  matureCrownRadiusM?: number | null
  yearsToMature: number
}

/** What happened to an obstruction on a day; it stands so from that day on. */
export type ObstructionEvent =
  | { date: IsoDate; action: 'limbed'; clearStemM: number }
  | { date: IsoDate; action: 'thinned'; fraction: number }
  | { date: IsoDate; action: 'lowered'; heightM: number }
  | { date: IsoDate; action: 'measured'; heightM: number; crownRadiusM?: number | undefined }

/** An obstruction's shape on one day, ready for tracing rays. */
export type Solid = Shape & { box: Box }
/** What stands on a day, as light meets it. */
export type Shape = Prism | Screen | Crown

/** All of a solid lies within these sides and below this top. */
export interface Box extends Extent {
  topM: number
}

/** An upright solid over a ring that lets nothing through, with eaves where it has them. */
export interface Prism {
  shape: 'prism'
  id: string
  ring: Ring
  heightM: number
  overhang: { depthM: number; heightM: number } | null
}

/** A thin upright sheet along a line. */
export interface Screen {
  shape: 'screen'
  id: string
  line: readonly Point[]
  heightM: number
  transmission: number
  thicknessM: number
}

/** A crown above a trunk: `radiusM` at its widest, from `clearStemM` to `heightM` above the ground. */
export interface Crown {
  shape: 'crown'
  id: string
  x: number
  y: number
  trunkRadiusM: number
  clearStemM: number
  heightM: number
  radiusM: number
  crownShape: CrownShape
  transmission: number
}

const DAYS_PER_YEAR = 365.25

/**
 * The obstruction as it stands on a day.
 *
 * @param day decides lifeline, growth and events
 * @param leafDay decides whether it is in leaf; the same day unless a season is judged as things stand
 * @returns undefined when it is not there on `day`
 */
export function standing(o: Obstruction, day: IsoDate, leafDay: IsoDate = day): Solid | undefined {
  return isAlive(o, day) ? boxed(shapeOn(o, day, leafDay)) : undefined
}

function shapeOn(o: Obstruction, day: IsoDate, leafDay: IsoDate): Shape {
  const now = sizesOn(o, day)
  switch (o.kind) {
    case 'building':
      return {
        shape: 'prism',
        id: o.id,
        ring: o.ring,
        heightM: now.heightM,
        overhang: eavesAt(o, now.heightM),
      }
    case 'wall':
    case 'fence':
    case 'hedge':
      return {
        shape: 'screen',
        id: o.id,
        line: o.line,
        heightM: now.heightM,
        transmission: thinned(o.transmission, now.kept),
        thicknessM: o.thicknessM,
      }
    case 'tree':
      return {
        shape: 'crown',
        id: o.id,
        x: o.x,
        y: o.y,
        trunkRadiusM: o.trunkRadiusM,
        clearStemM: Math.min(now.clearStemM, now.heightM),
        heightM: now.heightM,
        radiusM: now.crownRadiusM,
        crownShape: o.crownShape,
        transmission: thinned(isInLeaf(o, leafDay) ? o.transmissionInLeaf : o.transmissionBare, now.kept),
      }
  }
}

/** A shape with the box that rays are tried against first. */
export function boxed(shape: Shape): Solid {
  switch (shape.shape) {
    case 'prism': {
      const over = shape.overhang
      return {
        ...shape,
        box: boxOf(shape.ring, over?.depthM ?? 0, Math.max(shape.heightM, over?.heightM ?? 0)),
      }
    }
    case 'screen':
      return { ...shape, box: boxOf(shape.line, shape.thicknessM / 2, shape.heightM) }
    case 'crown':
      return {
        ...shape,
        box: boxOf([[shape.x, shape.y]], Math.max(shape.radiusM, shape.trunkRadiusM), shape.heightM),
      }
  }
}

/** Slack for points that touch a face, metres. */
const BOX_SLACK_M = 0.01

function boxOf(points: readonly Point[], marginM: number, topM: number): Box {
  const e = extentOf(points)
  const reach = marginM + BOX_SLACK_M
  return { minX: e.minX - reach, minY: e.minY - reach, maxX: e.maxX + reach, maxY: e.maxY + reach, topM }
}

/** The eaves of a building whose roof stands at another height: as far below it, or above, as they were; none below the ground. */
export function eavesAt(
  { overhang, heightM }: BuildingRecord,
  roofM: number,
): NonNullable<BuildingRecord['overhang']> | null {
  if (!overhang) return null
  const eavesM = overhang.heightM + roofM - heightM
  return eavesM > 0 ? { ...overhang, heightM: eavesM } : null
}

/** Removing a fraction of the leaf area leaves that much less to pass: T becomes T^kept (Beer-Lambert). */
const thinned = (transmission: number, kept: number) => (kept === 1 ? transmission : transmission ** kept)

interface Sizes {
  heightM: number
  crownRadiusM: number
  clearStemM: number
  /** Share of the foliage left after thinning. */
  kept: number
}

function sizesOn(o: Obstruction, day: IsoDate): Sizes {
  const tree = o.kind === 'tree' ? o : undefined
  let sizes: Sizes = {
    heightM: o.heightM,
    crownRadiusM: tree?.crownRadiusM ?? 0,
    clearStemM: tree?.clearStemM ?? 0,
    kept: 1,
  }
  let since = o.growth?.measuredOn
  // Events on or before the day the sizes were measured are already in them.
  const events = (o.events ?? [])
    .filter((e) => e.date <= day && (since === undefined || e.date > since))
    .sort((a, b) => (a.date < b.date ? -1 : 1))
  for (const e of events) {
    if (o.growth && since) sizes = grown(sizes, o.growth, since, e.date)
    if (o.growth) since = e.date
    if (e.action === 'limbed') sizes = { ...sizes, clearStemM: Math.max(sizes.clearStemM, e.clearStemM) }
    else if (e.action === 'thinned') sizes = { ...sizes, kept: sizes.kept * (1 - e.fraction) }
    else if (e.action === 'lowered') sizes = { ...sizes, heightM: Math.min(sizes.heightM, e.heightM) }
    else sizes = { ...sizes, heightM: e.heightM, crownRadiusM: e.crownRadiusM ?? sizes.crownRadiusM }
  }
  return o.growth && since ? grown(sizes, o.growth, since, day) : sizes
}

/** Sizes at `to`, from those at `from`; the same curve run backwards when `to` is earlier. */
function grown(sizes: Sizes, growth: Growth, from: IsoDate, to: IsoDate): Sizes {
  const years = daysBetween(from, to) / DAYS_PER_YEAR
  const remaining = Math.exp((-3 * years) / growth.yearsToMature)
  const towards = (size: number, mature: number) =>
    size >= mature ? size : Math.max(0.1, mature - (mature - size) * remaining)
  return {
    ...sizes,
    heightM: towards(sizes.heightM, growth.matureHeightM),
    crownRadiusM: towards(sizes.crownRadiusM, growth.matureCrownRadiusM ?? sizes.crownRadiusM),
  }
}

/**
 * The obstruction fixed as it stands on a day: no lifeline, growth or events any more, leaf dates kept.
 *
 * @returns undefined when it does not stand on that day
 */
export function frozen(o: Obstruction, day: IsoDate): Obstruction | undefined {
  if (!isAlive(o, day)) return undefined
  const now = sizesOn(o, day)
  const fixed = { from: null, to: null, growth: null, events: [], heightM: now.heightM }
  switch (o.kind) {
    case 'building':
      return { ...o, ...fixed, overhang: eavesAt(o, now.heightM) }
    case 'wall':
    case 'fence':
    case 'hedge':
      return { ...o, ...fixed, transmission: thinned(o.transmission, now.kept) }
    case 'tree':
      return {
        ...o,
        ...fixed,
        clearStemM: Math.min(now.clearStemM, now.heightM),
        crownRadiusM: now.crownRadiusM,
        transmissionInLeaf: thinned(o.transmissionInLeaf, now.kept),
        transmissionBare: thinned(o.transmissionBare, now.kept),
      }
  }
}

/** Whether a tree has its leaves on a day. */
export function isInLeaf(tree: Pick<TreeRecord, 'leafFrom' | 'leafTo'>, day: IsoDate): boolean {
  if (!tree.leafFrom || !tree.leafTo) return true
  const md = day.slice(5)
  return tree.leafFrom <= tree.leafTo
    ? tree.leafFrom <= md && md < tree.leafTo
    : md >= tree.leafFrom || md < tree.leafTo
}

/** The obstructions that do not stand alike on two dates, as far as their light can tell. */
export function changedBetween(
  obstructions: readonly Obstruction[],
  then: IsoDate,
  now: IsoDate,
): Obstruction[] {
  return obstructions.filter((o) => !isAlike(standing(o, then, now), standing(o, now, now)))
}

/** A centimetre, or a hundredth of the light that passes: a day of growth moves no shadow that anybody could measure. */
const LEAST_CHANGE = 0.01

function isAlike(a: unknown, b: unknown): boolean {
  if (typeof a === 'number' && typeof b === 'number') return Math.abs(a - b) <= LEAST_CHANGE
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return a === b
  const keys = Object.keys(a)
  return (
    keys.length === Object.keys(b).length &&
    keys.every((k) => k in b && isAlike((a as Record<string, unknown>)[k], (b as Record<string, unknown>)[k]))
  )
}

/** The days on which something recorded about the obstruction changed, with what it was. */
export function changesOf(o: Obstruction): { date: IsoDate; what: ChangeKind }[] {
  const changes: { date: IsoDate; what: ChangeKind }[] = (o.events ?? []).map((e) => ({
    date: e.date,
    what: e.action,
  }))
  if (o.from) changes.push({ date: o.from, what: 'appeared' })
  if (o.to) changes.push({ date: o.to, what: 'gone' })
  return changes.sort((a, b) => (a.date < b.date ? -1 : 1))
}

export type ChangeKind = 'appeared' | 'gone' | 'limbed' | 'thinned' | 'lowered' | 'measured' | 'grown'
