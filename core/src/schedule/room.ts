import { skills } from '../care/index.ts'
import type { Shift } from './problem.ts'

const SKILLS = skills.length
/** How many sets of skills there are: each is a bit mask of the skills in it. */
export const SKILL_SETS = 1 << SKILLS

/** Indices of skills as a bit mask. */
export const skillBits = (known: readonly string[]): number =>
  known.reduce((bits, k) => bits | (1 << skills.indexOf(k as (typeof skills)[number])), 0)

/** Minutes that the people of a shift have when each of them loses some on the way. */
export interface Left {
  all: number
  /** Of those who have any skill of a set, by set. */
  ofSkills: Int32Array
  /** Of all but so many people, those with the most time; by number of people. */
  beyond: Int32Array
  /** People with any time left. */
  people: number
}

/**
 * The minutes of the people of one shift, however much of them goes on the way: whoever goes from garden to garden loses that
 * time, and whoever has less of it than the way takes does not go.
 */
export interface ShiftRoom {
  /** Person-minutes of everyone, none of them on the way. */
  whole: number
  /** @param awayMin minutes of each person on the way */
  left: (awayMin: number) => Left
}

/** What a shift has room for. */
export function shiftRoom({ people }: Shift): ShiftRoom {
  const ordered = [...people].sort((a, b) => b.minutes - a.minutes)
  const known = ordered.map((p) => skillBits(p.skills))
  // Asked millions of times, of the few sums of ways there are.
  const found = new Map<number, Left>()
  const left = (awayMin: number): Left => {
    const before = found.get(awayMin)
    if (before) return before
    const minutes = ordered.map((p) => Math.max(0, p.minutes - awayMin))
    const sum = (of: (person: number) => boolean) => minutes.reduce((s, m, i) => s + (of(i) ? m : 0), 0)
    const now: Left = {
      all: sum(() => true),
      ofSkills: Int32Array.from({ length: SKILL_SETS }, (_, set) => sum((i) => (known[i]! & set) !== 0)),
      beyond: Int32Array.from({ length: minutes.length + 1 }, (_, some) => sum((i) => i >= some)),
      people: minutes.filter((m) => m > 0).length,
    }
    found.set(awayMin, now)
    return now
  }
  return { whole: left(0).all, left }
}

/**
 * Minutes of a job of so many hands that must be worked by others than the `people` with the most time: each gives a job no
 * more than its share. Jobs fit a shift, each shared among people who have the time, when for every number of people these
 * minutes are there beyond them (the cuts of a flow from jobs to people: Ford and Fulkerson 1956).
 */
export const minutesBeyond = (minutes: number, hands: number, people: number): number =>
  minutes * Math.max(0, 1 - people / hands)

/** Most minutes of a job that people have, were it alone there. */
export function roomFor({ all, ofSkills, beyond, people }: Left, skill: number, hands: number): number {
  if (people < hands) return 0
  let most = skill < 0 ? all : ofSkills[1 << skill]!
  for (let some = 1; some < hands; some++) most = Math.min(most, beyond[some]! / (1 - some / hands))
  return Math.floor(most + 1e-9)
}
