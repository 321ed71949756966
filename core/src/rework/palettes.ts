import type { SolveMilp } from '../search/index.ts'
import {
  layers,
  paletteOf,
  type Candidate,
  type Palette,
  type PaletteWishes,
  type WishName,
} from './palette.ts'
import { programmeOf } from './paletteProgramme.ts'

/** Palettes that differ; or wishes that contradict one another. */
export type PaletteAnswer =
  | { ok: true; palettes: readonly Palette[] }
  | { ok: false; why: 'limit' }
  | {
      ok: false
      why: 'conflict'
      /** Of these no one may be left out, for them to contradict each other. */
      wishes: readonly WishName[]
      /** What each costs that is given up alone, the cheapest first: its palette. Those that do not help are not here. */
      giveUp: readonly { wish: WishName; palette: Palette }[]
    }

const PALETTES = 3
/** As precise as this, of what a place lacks with nothing in it. */
const GAP = 0.005
const NODES = 400
const FEASIBLE_LIMITS = { gap: 1, gapCost: 1e9, nodes: NODES }

function solved(
  candidates: readonly Candidate[],
  w: PaletteWishes,
  solve: SolveMilp,
  without: ReadonlySet<WishName> = new Set(),
  apart: readonly (readonly string[])[] = [],
): { ok: true; palette: Palette } | { ok: false; why: 'infeasible' | 'limit' } {
  const { milp, options } = programmeOf(candidates, w, without, apart)
  const { lack: lackOfNothing } = paletteOf([], { ...w, stays: [] })
  const found = solve(milp, { gap: 1e-6, gapCost: GAP * lackOfNothing, nodes: NODES })
  if (!found.ok) return found
  const items = options
    .filter((o) => found.values[o.variable] === 1)
    .map(({ variable: _, ...item }) => item)
    .sort((a, b) => b.areaM2 - a.areaM2)
  return { ok: true, palette: paletteOf(items, w, Math.max(0, found.cost - found.bound) / lackOfNothing) }
}

/**
 * Three palettes for a place, the best first as far as is proved, each of which leaves out at least three kinds of every one before it;
 * fewer where no more differ so much. Or, where the wishes contradict each other, which of them do and what giving up each alone would
 * bring (an irreducible infeasible subset by deletion; Chinneck and Dravnieks 1991, ORSA Journal on Computing 3, 157-168).
 *
 * @param apart kinds of palettes found before, which those that are asked for differ from as well: none come where none do
 */
export function palettesFor(
  candidates: readonly Candidate[],
  w: PaletteWishes,
  solve: SolveMilp,
  { apart = [], most = PALETTES }: { apart?: readonly (readonly string[])[]; most?: number } = {},
): PaletteAnswer {
  const palettes: Palette[] = []
  while (palettes.length < most) {
    const found = solved(candidates, w, solve, new Set(), [...apart, ...palettes.map(kindsOf)])
    if (found.ok) palettes.push(found.palette)
    else if (palettes.length > 0 || apart.length > 0) break
    else return found.why === 'limit' ? { ok: false, why: 'limit' } : conflictIn(candidates, w, solve)
  }
  return { ok: true, palettes }
}

const kindsOf = ({ items }: Palette): string[] => items.map((i) => i.candidate.taxon.botanical)

/** The wishes that can be given up, as far as they are wished. */
function wishesOf(w: PaletteWishes): WishName[] {
  return [
    ...(w.budget === undefined ? [] : (['budget'] as const)),
    ...(w.evergreenShare === undefined ? [] : (['evergreen'] as const)),
    ...(w.noBareWeek ? (['no bare week'] as const) : []),
    ...(w.scented === undefined ? [] : (['scented'] as const)),
    ...(w.wildlife === undefined ? [] : (['wildlife'] as const)),
    ...(w.scheme ? (['colours'] as const) : []),
    ...(w.harmlessTo ? (['harmless'] as const) : []),
    ...(w.leftBy ? (['left alone'] as const) : []),
    'fewest kinds',
    'most kinds',
    'ground filled',
    ...layers.flatMap((l): WishName[] => (w.layerShares?.[l] === undefined ? [] : [`layer ${l}`])),
    ...(w.locked ?? []).map((l): WishName => `locked ${l}`),
  ]
}

function conflictIn(candidates: readonly Candidate[], w: PaletteWishes, solve: SolveMilp): PaletteAnswer {
  const canBe = (without: ReadonlySet<WishName>) =>
    solve(programmeOf(candidates, w, without, []).milp, FEASIBLE_LIMITS).ok
  const out = new Set<WishName>()
  const kept: WishName[] = []
  for (const wish of wishesOf(w)) {
    out.add(wish)
    if (!canBe(out)) continue
    // Without it there is an answer: it is one of those that contradict each other.
    out.delete(wish)
    kept.push(wish)
  }
  const giveUp = kept.flatMap((wish) => {
    const found = solved(candidates, w, solve, new Set([wish]))
    return found.ok ? [{ wish, palette: found.palette }] : []
  })
  giveUp.sort((a, b) => a.palette.lack - b.palette.lack)
  return { ok: false, why: 'conflict', wishes: kept, giveUp }
}
