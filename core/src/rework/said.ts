import type { Feature, Place, Planting } from '../garden/index.ts'
import type { Point } from '../geometry/index.ts'
import type { Taxon } from '../plants/index.ts'
import { bulbsSet } from '../quantities/index.ts'
import { comesUpBetween, type Candidate } from './palette.ts'
import type { WayOut } from './relocation.ts'
import type { SaidExtras } from './extras.ts'
import type { KeptDrift } from './groundRuns.ts'

/** Kinds by their botanical names. */
export type KindOf = ReadonlyMap<string, Taxon>

/** Where something that leaves goes: a spot by where it lies, or a way out. */
export type WentTo = { to: 'spot'; placeId: string; x: number; y: number } | { to: WayOut }

/** Where what leaves was found to go best; where nothing was found, nobody knows. */
export type Went = { ok: true; went: readonly { plantingId: string; destination: WentTo }[] } | { ok: false }

/** Something that leaves a place, or is divided in it. */
export interface SaidLeaving {
  plantingId: string
  how: 'leaves' | 'divides'
  /** Null where the least cost in all is to decide. */
  to: WentTo | null
}

/** So many of a kind that come in. */
export interface SaidKind {
  id: string
  botanical: string
  count: number
  from: Candidate['from']
}

/** What is said of a scheme, as far as it is drawn and reckoned up. */
export interface SaidForPaper extends Omit<SaidExtras, 'stones'> {
  stones?: readonly Point[] | undefined
  leaving: readonly SaidLeaving[]
  drifts: readonly (SaidKind & KeptDrift)[]
  /** Bulbs that come up between the drifts. */
  between: readonly SaidKind[]
  /** What fills the ground that is open until its plants have grown, by its botanical name. */
  filler?: string | undefined
  viewedFrom: readonly number[] | null
  compostM: number
  mulchM: number
  spareShare: number
  /** Of an hour's work, in minor units; null where work is not paid for. */
  hourPrice: number | null
}

/** What fills the ground that a scheme leaves open; undefined where nobody has said, or the kind is in no library. */
export const fillerOf = ({ filler }: { filler?: string | undefined }, kindOf: KindOf): Taxon | undefined =>
  filler === undefined ? undefined : kindOf.get(filler)

/** Where something that leaves goes: as somebody decided, else as was found best; undefined while that is not known. */
export const destinationOf = (
  { plantingId, to }: SaidLeaving,
  relocated: Went | undefined,
): WentTo | undefined =>
  to ?? (relocated?.ok ? relocated.went.find((w) => w.plantingId === plantingId)?.destination : undefined)

/** What leaves its ground: not what is to stay for now, whether somebody decided so or nothing better was found. */
export const leavingOf = (
  { leaving }: { leaving: readonly SaidLeaving[] },
  relocated: Went | undefined,
): string[] =>
  leaving
    .filter((l) => l.how === 'leaves' && destinationOf(l, relocated)?.to !== 'stay')
    .map((l) => l.plantingId)

/** What stays of what stands in a place. */
export function staysOf<P extends Planting>(
  plantings: readonly P[],
  placeId: string,
  said: { leaving: readonly SaidLeaving[] },
  relocated: Went | undefined,
): P[] {
  const leaving = new Set(leavingOf(said, relocated))
  return plantings.filter((p) => p.placeId === placeId && !leaving.has(p.id))
}

/** Plants of each kind of a scheme, in the order in which they first come. */
export function kindsOf({ drifts, between }: { drifts: readonly SaidKind[]; between: readonly SaidKind[] }): {
  botanical: string
  count: number
  drifts: number
  from: Candidate['from']
}[] {
  const found = new Map<
    string,
    { botanical: string; count: number; drifts: number; from: Candidate['from'] }
  >()
  for (const { botanical, count, from } of [...drifts, ...between]) {
    const known = found.get(botanical)
    found.set(botanical, {
      botanical,
      count: count + (known?.count ?? 0),
      drifts: 1 + (known?.drifts ?? 0),
      from: known?.from ?? from,
    })
  }
  return [...found.values()]
}

/** Whether any drift has ground: else it wants to be laid out. */
export const isLaidOut = ({ drifts }: { drifts: readonly { ground: unknown }[] }): boolean =>
  drifts.some((d) => d.ground !== null)

/** Where a bed is seen from, at most two sides: as the scheme says, else as the plan does, else from below. */
export function viewsOf(
  features: readonly Feature[],
  placeId: string,
  { viewedFrom }: { viewedFrom: readonly number[] | null },
): readonly number[] {
  if (viewedFrom) return viewedFrom
  const { viewedFrom: onPlan = [] } = (features.find((f) => f.id === placeId)?.properties ?? {}) as {
    viewedFrom?: number[]
  }
  return onPlan.length > 0 ? onPlan.slice(0, 2) : [180]
}

/** The outline of a bed or pot, on the plan. */
export const placeOutline = (place: Place): Point[] =>
  place.kind === 'bed'
    ? place.ring.map(([x, y]): Point => [x, y])
    : Array.from({ length: POT_CORNERS }, (_, i): Point => {
        const a = (2 * Math.PI * i) / POT_CORNERS
        return [place.x + place.radiusM * Math.cos(a), place.y + place.radiusM * Math.sin(a)]
      })
const POT_CORNERS = 48

/** How a kind is set: how far apart and, of bulbs, how deep. */
export function setWords(taxon: Taxon, { texture }: Pick<Place, 'texture'>): string {
  const cm = (m: number) => `${Math.round(100 * m)} cm`
  const set = bulbsSet(taxon, texture)
  const apart = set && comesUpBetween(taxon) ? set.spacingM : taxon.spacingM
  return `${cm(apart)} apart${set ? `, ${cm(set.depthM)} deep` : ''}`
}

/** Letters that stand for kinds: A to Z, then A2 to Z2 and on. */
export const letterOf = (turn: number): string =>
  String.fromCharCode(65 + (turn % 26)) + (turn < 26 ? '' : `${1 + Math.floor(turn / 26)}`)
