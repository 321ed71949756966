import { addDays } from '../src/dates/index.ts'
import { diagnose, isSiteCause, likelihoods, signCauses } from '../src/diagnosis/index.ts'
import { seededRandom } from '../src/random/index.ts'
import { troubledGarden } from '../simulated/index.ts'

/**
 * How often the first-ranked cause is the true one over seeded gardens in which one trouble is hidden, and how often a
 * planting that is only resting or settling in is called failing. Arguments: first seed, gardens a cause.
 */
const [first = 1, gardens = 60] = process.argv.slice(2).map(Number)
const say = (text = '') => process.stdout.write(`${text}\n`)

let right = 0
let asked = 0
let silent = 0
let calm = 0
let alarms = 0
say('cause               gardens   first right   in first two   no sign noted')
for (const cause of [...signCauses, undefined]) {
  let own = 0
  let two = 0
  let n = 0
  let none = 0
  for (let g = 0; g < gardens; g++) {
    const random = seededRandom((first + g) * 7919 + (cause ? signCauses.indexOf(cause) : 99) * 104_729)
    const on = addDays('2026-05-15', Math.floor(random() * 150))
    const garden = troubledGarden(random, { on, cause, disorder: 0.4, missed: 0.2 })
    const diagnoses = diagnose(garden.plantings, likelihoods, garden.year)
    garden.plantings.forEach((p, i) => {
      const d = diagnoses[i]!
      if (garden.truth?.affected.includes(p.id) && cause !== 'its season' && cause !== 'settling in') return
      if (!d.usual.resting && !d.settling) return
      calm++
      if (d.failing) alarms++
    })
    if (!garden.truth) continue
    const { centre, affected } = garden.truth
    const shows = garden.plantings.some(
      (p) => (isSiteCause(cause!) ? affected.includes(p.id) : p.id === centre) && p.signs.length > 0,
    )
    if (!shows) {
      none++
      continue
    }
    n++
    const causes = diagnoses.find((d) => d.plantingId === centre)!.causes
    if (causes[0]?.cause === cause) own++
    if (causes.slice(0, 2).some((c) => c.cause === cause)) two++
  }
  if (cause) {
    say(
      `${cause.padEnd(18)} ${String(n).padStart(8)} ${percent(own, n)} ${percent(two, n)} ${String(none).padStart(14)}`,
    )
    right += own
    asked += n
    silent += none
  }
}
say()
say(
  `first-ranked cause right: ${percent(right, asked).trim()} of ${asked} (${silent} gardens showed no sign of it)`,
)
say(`resting or settling plantings called failing: ${percent(alarms, calm).trim()} of ${calm}`)
// The aims of the product: eight of ten right, under two in a hundred false alarms.
if (right < 0.8 * asked || alarms >= 0.02 * calm) process.exitCode = 1

function percent(part: number, of: number): string {
  return `${of === 0 ? '–' : ((100 * part) / of).toFixed(1)} %`.padStart(14)
}
