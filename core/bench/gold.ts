/**
 * The situations that are written down, with what is advised in each: by subject how many are right, partly right and wrong, and
 * each that is not right. Run with `npm run gold -w core`.
 */
import { group } from 'd3-array'
import { goldCases } from '../src/gold/cases.ts'
import { gradeOf, verdictOn } from '../src/gold/test/judge.ts'

const graded = goldCases.map((c) => {
  const verdict = verdictOn(c)
  return { c, verdict, grade: gradeOf(c, verdict) }
})
const say = (line: string) => process.stdout.write(`${line}\n`)
const counts = (of: typeof graded) =>
  (['right', 'partly', 'wrong', 'harm'] as const).map((g) =>
    String(of.filter((x) => x.grade === g).length).padStart(7),
  )
say(`${'subject'.padEnd(12)}  cases   right  partly   wrong    harm`)
for (const [subject, of] of [...group(graded, (g) => g.c.subject), ['all', graded] as const])
  say(`${subject.padEnd(12)} ${String(of.length).padStart(6)} ${counts([...of]).join(' ')}`)
for (const { c, verdict, grade } of graded)
  if (grade !== 'right') say(`${grade}: ${c.tells} (${c.plant}, ${c.on}): ${verdict.action}`)
