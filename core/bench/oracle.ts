import loadHighs from 'highs'
import { scheduleCosts, type ScheduleProblem } from '../src/schedule/index.ts'
import { highsSolver, Milp } from '../src/search/index.ts'
import { prepare } from '../src/schedule/prepare.ts'
import { minutesBeyond, SKILL_SETS, skillBits } from '../src/schedule/room.ts'

/**
 * The proved optimum of a small season by a mixed-integer programme (HiGHS): a second, independent way to the cost that the
 * search looks for. Variables: part on shift, garden visited on shift, part left out. Everybody is taken to have the time for the way
 * to every garden.
 *
 * @returns the least cost, and by how much it may still be wrong
 * @throws {Error} when the solver does not prove it
 */
export async function provedOptimum(problem: ScheduleProblem): Promise<{ cost: number; gap: number }> {
  const prepared = prepare(problem)
  const { parts, days, travel, gardens, mostHands } = prepared
  const shifts = days.length
  const milp = new Milp()
  const row: Milp['row'] = (terms, low, high) => milp.row(terms, low, high)
  const x = parts.map((p) => [...p.shifts].map((_, i) => milp.binary(p.costs[i]!)))
  const left = parts.map((p) => milp.binary(p.penalty))
  const y = Array.from({ length: shifts }, () =>
    Array.from({ length: gardens }, () => milp.binary(scheduleCosts.visit)),
  )
  parts.forEach((p, k) => {
    // A job is done whole or not at all.
    if (p.index > 0)
      row(
        [
          [left[k]!, 1],
          [left[k - 1]!, -1],
        ],
        0,
        0,
      )
    row([...x[k]!.map((v): [number, number] => [v, 1]), [left[k]!, 1]], 1, 1)
    p.shifts.forEach((s, i) => {
      row(
        [
          [x[k]![i]!, 1],
          [y[s]![p.garden]!, -1],
        ],
        -Infinity,
        0,
      )
      if (days[s]! < p.earliest || days[s]! > p.latest) row([[x[k]![i]!, 1]], 0, 0)
    })
  })
  for (let s = 0; s < shifts; s++) {
    const here = parts.flatMap((p, k) => {
      const i = p.shifts.indexOf(s)
      return i < 0 ? [] : [{ p, v: x[k]![i]! }]
    })
    const people = [...prepared.problem.shifts[s]!.people].sort((a, b) => b.minutes - a.minutes)
    /** Work, by what each part counts, is no more than what some people have less their ways. */
    const bounded = (worked: (p: (typeof parts)[number]) => number, by: typeof people) => {
      const terms = here.flatMap(({ p, v }): [number, number][] => (worked(p) > 0 ? [[v, worked(p)]] : []))
      if (terms.length > 0)
        row(
          [...terms, ...y[s]!.map((v, g): [number, number] => [v, travel[g]! * by.length])],
          -Infinity,
          by.reduce((sum, p) => sum + p.minutes, 0),
        )
    }
    bounded((p) => p.minutes, people)
    for (let set = 1; set < SKILL_SETS; set++)
      bounded(
        (p) => (p.skill >= 0 && set & (1 << p.skill) ? p.minutes : 0),
        people.filter((p) => skillBits(p.skills) & set),
      )
    for (let most = 1; most < mostHands; most++)
      bounded((p) => minutesBeyond(p.minutes, p.hands, most), people.slice(most))
  }
  parts.forEach((p, k) => {
    for (const { part: a, least, most } of p.before)
      p.shifts.forEach((s, i) => {
        // On a day only if what comes first is done long enough and not too long before.
        const good = [...parts[a]!.shifts].flatMap((sa, ia) => {
          const gap = days[s]! - days[sa]!
          return gap >= least && gap <= most ? [x[a]![ia]!] : []
        })
        row([[x[k]![i]!, 1], ...good.map((v): [number, number] => [v, -1])], -Infinity, 0)
      })
  })
  const found = highsSolver(await loadHighs())(milp, { gap: 0.0005, nodes: 1_000_000 })
  if (!found.ok) throw new Error(`HiGHS proved nothing: ${found.why}`)
  return { cost: Math.round(found.cost), gap: found.gap }
}
