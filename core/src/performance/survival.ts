import { daysBetween, type IsoDate } from '../dates/index.ts'

/** How long one plant was followed, in years, and whether it died then or was only last seen then. */
export interface Followed {
  years: number
  died: boolean
}

/** A step of the survival curve: just after `years`, this share is alive. */
export interface SurvivalStep {
  years: number
  /** Plants still followed just before. */
  atRisk: number
  died: number
  share: number
  /** Greenwood's standard error of the share. */
  se: number
}

/**
 * The product-limit estimate of Kaplan and Meier (1958, J. Am. Stat. Assoc. 53, 457-481), with Greenwood's error. Plants
 * lost to sight at the time of a death are taken as alive then.
 *
 * @returns a step for each time at which plants died, in order; empty when none did
 */
export function survivalOf(followed: readonly Followed[]): SurvivalStep[] {
  const times = [...new Set(followed.filter((f) => f.died).map((f) => f.years))].sort((a, b) => a - b)
  let share = 1
  let greenwood = 0
  return times.map((years) => {
    const atRisk = followed.filter((f) => f.years >= years).length
    const died = followed.filter((f) => f.died && f.years === years).length
    share *= 1 - died / atRisk
    greenwood += died / (atRisk * (atRisk - died))
    // When the last plant dies the error has no estimate; the share is 0 either way.
    const se = share === 0 ? 0 : share * Math.sqrt(greenwood)
    return { years, atRisk, died, share, se }
  })
}

/** The share alive at an age, with its error; 1 before the first death. */
export function survivingAt(steps: readonly SurvivalStep[], years: number): { share: number; se: number } {
  const step = steps.findLast((s) => s.years <= years)
  return step ? { share: step.share, se: step.se } : { share: 1, se: 0 }
}

/** A planting's head count over time. */
export interface CountHistory {
  plantedCount: number
  /** Years since planting, ascending, with the plants then living. */
  counts: readonly { years: number; living: number }[]
  /** Years to the last look, or to when it was lifted and its plants were no longer followed. */
  followedYears: number
}

const DAYS_PER_YEAR = 365.25

/**
 * The head counts of a planting as survival takes them: by its age, to a hundredth of a year.
 *
 * @param counts in order of day
 * @param followedTo the last day that its plants were followed
 */
export function countHistory(
  { plantedOn, plantedCount }: { plantedOn: IsoDate; plantedCount: number },
  counts: readonly { on: IsoDate; living: number }[],
  followedTo: IsoDate,
): CountHistory {
  const age = (on: IsoDate) =>
    Math.round((Math.max(0, daysBetween(plantedOn, on)) / DAYS_PER_YEAR) * 100) / 100
  return {
    plantedCount,
    counts: counts.map(({ on, living }) => ({ years: age(on), living })),
    followedYears: age(followedTo),
  }
}

/** Each plant of some plantings, followed to its death or to the last look. */
export function followedPlants(plantings: readonly CountHistory[]): Followed[] {
  return plantings.flatMap((p) => {
    const plants: Followed[] = []
    let living = p.plantedCount
    for (const c of p.counts) {
      // Counted more than before: volunteers, or a miscount put right; neither raises the dead.
      for (; living > c.living; living--) plants.push({ years: c.years, died: true })
    }
    for (let i = 0; i < living; i++) plants.push({ years: p.followedYears, died: false })
    return plants
  })
}
