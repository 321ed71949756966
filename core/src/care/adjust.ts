import { careRules } from './rules/index.ts'
import type { Anchor, CareRule, MonthDays } from './rule.ts'

/** What a garden changes of the shipped rules, and the rules it adds. */
export interface RuleEdits {
  /** Shipped rules switched off, or on that ship off, by id. */
  switched: Readonly<Record<string, boolean>>
  adjusted: Readonly<Record<string, RuleAdjustment>>
  own: readonly CareRule[]
}

/** What a garden changes of a shipped rule; what is absent stays as shipped. */
export interface RuleAdjustment {
  /** Days by which its windows move; negative for sooner. */
  shiftDays?: number | undefined
  everyDays?: number | undefined
  /** Takes the place of so many days. */
  monthDays?: MonthDays | undefined
  everySeasons?: number | undefined
  /** Share of the shipped labour, 1 for as shipped. */
  labour?: number | undefined
}

/** Every rule as it is shipped, and none of a garden’s own. */
export const NO_EDITS: RuleEdits = { switched: {}, adjusted: {}, own: [] }

/** The rules a garden follows: shipped ones as it has them, and its own. */
export function rulesWith(edits: RuleEdits): CareRule[] {
  const shipped = careRules.filter((r) => edits.switched[r.id] ?? !r.off)
  const own = edits.own.filter((r) => edits.switched[r.id] ?? true)
  return [...shipped, ...own].map((rule) => {
    const by = edits.adjusted[rule.id]
    return by ? adjustedRule(rule, by) : rule
  })
}

function adjustedRule(rule: CareRule, by: RuleAdjustment): CareRule {
  const share = by.labour ?? 1
  const { setUp, perPlant = 0, perM2 = 0, perMetre = 0 } = rule.labour
  return {
    ...rule,
    ...(rule.everyDays && by.everyDays && { everyDays: by.everyDays }),
    ...(rule.everyDays && by.monthDays && { monthDays: by.monthDays }),
    ...(by.everySeasons && { everySeasons: by.everySeasons }),
    labour: {
      setUp: setUp * share,
      perPlant: perPlant * share,
      perM2: perM2 * share,
      perMetre: perMetre * share,
    },
    windows: by.shiftDays
      ? rule.windows.map((w) => ({
          ...w,
          earliest: shifted(w.earliest, by.shiftDays!),
          bestFrom: shifted(w.bestFrom, by.shiftDays!),
          bestTo: shifted(w.bestTo, by.shiftDays!),
          latest: shifted(w.latest, by.shiftDays!),
        }))
      : rule.windows,
  }
}

/** Edges that hang on another edge of the window move with it. */
function shifted(anchor: Anchor, days: number): Anchor {
  if ('at' in anchor && (anchor.at === 'earliest' || anchor.at === 'latest' || anchor.at === 'best from'))
    return anchor
  return { ...anchor, days: (anchor.days ?? 0) + days, ...(anchor.or && { or: shifted(anchor.or, days) }) }
}
