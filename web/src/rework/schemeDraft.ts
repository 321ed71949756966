import type {
  AssessmentView,
  GroundView,
  PaletteView,
  PlantingView,
  SaidDrift,
  SaidScheme,
  SaidWishes,
  SchemeView,
} from '@border/contract'
import {
  actionOn,
  arrangementFrom,
  comesUpBetween,
  goesElsewhere,
  groundWritten,
  usualWorth,
  type Arrangement,
  type BedGround,
  type KindOf,
  type Place,
  type Taxon,
} from '@border/core'

/** Wishes to begin with: nothing is asked that the person has not asked. */
export const usualWishes = (drifts: SaidWishes['drifts'], tallestM: number): SaidWishes => ({
  tallestM,
  kinds: { least: 5, most: 10 },
  drifts,
})

export const newScheme = (name: string, wishes: SaidWishes): SaidScheme => ({
  name,
  leaving: [],
  wishes,
  drifts: [],
  between: [],
  viewedFrom: null,
  seenFromM: null,
  baseLine: null,
  compostM: 0.03,
  mulchM: 0.05,
  spareShare: 0.05,
  hourPrice: null,
})

/** What leaves a place and what is divided as its verdicts stand: what somebody has decided goes before what is proposed. */
export function leavingByVerdicts(
  placeId: string,
  standing: readonly PlantingView[],
  { assessments, decisions }: AssessmentView,
  on: string,
): SaidScheme['leaving'] {
  return standing.flatMap((p): SaidScheme['leaving'] => {
    if (p.placeId !== placeId) return []
    const assessment = assessments.find((a) => a.plantingId === p.id)
    if (!assessment) return []
    const action = actionOn(decisions, assessment, on)
    const leaving = { plantingId: p.id, to: null, worth: usualWorth(p, standing, on).worth }
    if (action === 'divide') return [{ ...leaving, how: 'divides' }]
    if (action === 'remove') return [{ ...leaving, how: 'leaves', to: { to: 'gone' } }]
    return goesElsewhere(action) ? [{ ...leaving, how: 'leaves' }] : []
  })
}

/** A bed as its drifts are arranged in it. */
export const bedGround = (
  place: Place,
  { stations, stationM2, cellM }: GroundView,
  viewedFrom: readonly number[],
  stays: readonly PlantingView[],
): BedGround => ({ of: { place, stations, stationM2 }, cellM, viewedFrom, stays })

/** The drifts of a scheme as they lie in the bed; those of kinds that are in no library any more apart. */
export function arrangementOf(
  ground: BedGround,
  { drifts }: Pick<SaidScheme, 'drifts'>,
  kindOf: KindOf,
): { arranged: Arrangement; unknown: SaidDrift[] } {
  return {
    arranged: arrangementFrom(ground, drifts, kindOf),
    unknown: drifts.filter((d) => !kindOf.has(d.botanical)),
  }
}

/** A scheme with its drifts arranged so; what is in no library stays as it was said. */
export function withArrangement(
  said: SaidScheme,
  ground: BedGround,
  arranged: Arrangement,
  kindOf: KindOf,
): SaidScheme {
  const before = new Map(said.drifts.map((d) => [d.id, d]))
  const runs = groundWritten(ground.of, ground.cellM, arranged.has, arranged.drifts.length)
  const drifts = arranged.drifts.map((d, k): SaidDrift => ({
    id: d.id,
    botanical: d.taxon.botanical,
    count: d.count,
    from: before.get(d.id)?.from ?? sourceOf(said, d.taxon.botanical),
    ground: runs[k]!.length > 0 ? runs[k]! : null,
    isDrawn: d.isDrawn === true,
    ...(d.isMatrix && { isMatrix: true as const }),
  }))
  return { ...said, drifts: [...drifts, ...said.drifts.filter((d) => !kindOf.has(d.botanical))] }
}

/** Where a kind comes from, as another drift of it does. */
const sourceOf = ({ drifts }: SaidScheme, botanical: string): SaidDrift['from'] =>
  drifts.find((d) => d.botanical === botanical)?.from ?? 'library'

/** Plants shared out over groups, as alike as they can be: 13 in three are 5, 4 and 4. */
export const inGroups = (count: number, groups: number): number[] =>
  Array.from({ length: groups }, (_, i) => Math.floor((count + groups - 1 - i) / groups)).filter((n) => n > 0)

/** A scheme with the kinds of a palette in place of its own; drifts that were drawn by hand stay, and their kinds are not set twice. */
export function withPalette(said: SaidScheme, palette: PaletteView): SaidScheme {
  const drawn = said.drifts.filter((d) => d.isDrawn)
  const items = palette.items.filter(
    ({ candidate: { taxon } }) => !drawn.some((d) => d.botanical === taxon.botanical),
  )
  const of = ({ candidate: { taxon, from } }: PaletteView['items'][number], count: number) => ({
    id: crypto.randomUUID(),
    botanical: taxon.botanical,
    count,
    from,
  })
  return {
    ...said,
    drifts: [
      ...drawn,
      ...items
        .filter((i) => !comesUpBetween(i.candidate.taxon))
        .flatMap((i) =>
          inGroups(i.count, i.drifts).map((n): SaidDrift => ({
            ...of(i, n),
            ground: null,
            isDrawn: false,
            ...(i.isMatrix && { isMatrix: true as const }),
          })),
        ),
    ],
    between: items.filter((i) => comesUpBetween(i.candidate.taxon)).map((i) => of(i, i.count)),
  }
}

/** A kind more: a drift that has no ground yet, or bulbs between. */
export function withKind(said: SaidScheme, taxon: Taxon, count: number, from: SaidDrift['from']): SaidScheme {
  const item = { id: crypto.randomUUID(), botanical: taxon.botanical, count, from }
  return comesUpBetween(taxon)
    ? { ...said, between: [...said.between, item] }
    : { ...said, drifts: [...said.drifts, { ...item, ground: null, isDrawn: false }] }
}

export const withoutKind = (said: SaidScheme, botanical: string): SaidScheme => ({
  ...said,
  drifts: said.drifts.filter((d) => d.botanical !== botanical),
  between: said.between.filter((b) => b.botanical !== botanical),
})

/** A wish turned on or off: a kind is either wanted whatever is said, or kept out, or neither. */
export function withWish(
  wishes: SaidWishes,
  botanical: string,
  wish: 'locked' | 'barred' | null,
): SaidWishes {
  const without = (list: readonly string[] = []) => list.filter((b) => b !== botanical)
  const { locked, barred, ...rest } = wishes
  const next = {
    locked: [...without(locked), ...(wish === 'locked' ? [botanical] : [])],
    barred: [...without(barred), ...(wish === 'barred' ? [botanical] : [])],
  }
  return {
    ...rest,
    ...(next.locked.length > 0 && { locked: next.locked }),
    ...(next.barred.length > 0 && { barred: next.barred }),
  }
}

/** Schemes told apart by name, where somebody has given two of them the same. */
export function schemeNames(schemes: readonly SchemeView[]): string[] {
  return schemes.map(({ said: { name } }, i) =>
    schemes.some((s, k) => k !== i && s.said.name === name) ? `${name} (${i + 1})` : name,
  )
}
