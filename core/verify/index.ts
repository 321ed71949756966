import { effectsDeviation } from './effects.ts'
import { lightDeviation } from './light.ts'
import { graphExcess, seasonExcess, yearExcess } from './plan.ts'
import { recordDeviation } from './record.ts'
import { waterDeviation } from './water.ts'

/**
 * Holds the engine against references written apart from it, on seeded inputs, and prints the largest deviations. Ends with an
 * error where one is larger than it may be.
 *
 * usage: npm run verify -w core -- [first seed, of the day unless told otherwise, so that no seed is old] [light, water, effects, record, plan]
 */
const [seedAsked, ...asked] = process.argv.slice(2)
const first = Number(seedAsked ?? Math.floor(Date.now() / 86_400_000))
const say = (text: string) => process.stdout.write(`${text}\n`)

/** @returns the largest of some deviations; NaN is larger than any */
const largest = (values: readonly number[]) => (values.some(Number.isNaN) ? NaN : Math.max(0, ...values))
const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length
const percent = (share: number) => `${(100 * share).toFixed(2)} %`

function holds(what: string, deviation: number, most: number, said: (n: number) => string): void {
  const isWithin = deviation <= most
  say(`  ${isWithin ? 'ok ' : 'FAR'} ${what}: ${said(deviation)}, ${said(most)} at most`)
  if (!isWithin) process.exitCode = 1
}

const seeds = (n: number) => Array.from({ length: n }, (_, i) => first + i)

const sections: Record<string, () => void | Promise<void>> = {
  light() {
    const all = seeds(100).map((seed) => lightDeviation(seed))
    const traced = all.flatMap((d) => d.traced)
    const drawn = all.flatMap((d) => d.drawn)
    say(
      `Hours of sun at ${traced.length} points of ${all.length} gardens, against rays marched in small steps`,
    )
    const hours = (n: number) => `${n.toFixed(4)} h`
    holds('rays traced', largest(traced), 0.02, hours)
    holds('the field drawn from shadows', largest(drawn), 0.03, hours)
  },
  water() {
    const all = seeds(300).map((seed) => waterDeviation(seed))
    say(`The water of ${all.length} plants over four months, against the daily sheet of FAO-56`)
    holds(
      'gone from the root zone',
      largest(all.map((d) => d.depletionMm)),
      0.01,
      (n) => `${n.toFixed(5)} mm`,
    )
    holds('the day it needs watering', largest(all.map((d) => d.dueDays)), 0, (n) => `${n} days`)
  },
  effects() {
    const all = seeds(300).map((seed) => effectsDeviation(seed))
    say(
      `The effects of ${all.length} tables with holes, nothing shrunk, against least squares by reflections`,
    )
    holds('differences of levels', largest(all.map((d) => d.difference)), 1e-4, (n) => n.toPrecision(2))
    holds('standard errors', largest(all.map((d) => d.se)), 1e-4, (n) => n.toPrecision(2))
  },
  record() {
    const all = seeds(200).map((seed) => recordDeviation(seed)!)
    const modelled = all.filter((d) => d.model)
    say(`The record of ${all.length} thin gardens, ${modelled.length} with a model, against dense REML`)
    holds('expected ratings', largest(modelled.map((d) => d.expected)), 0.02, (n) => n.toPrecision(2))
    holds('standard errors', largest(modelled.map((d) => d.se)), 0.05, percent)
    const shares = modelled.flatMap((d) => d.model!.shares)
    const said = shares.filter((s) => s.share !== undefined)
    holds('widest range of a share that is said', largest(said.map((s) => s.high - s.low)), 0.5, percent)
    say(`  ${said.length} of ${shares.length} shares said`)
  },
  async plan() {
    const graphs = seeds(60).map((seed) => graphExcess(seed))
    say('60 small graphs of jobs against every way of giving them days')
    say(`  ${graphs.filter((g) => g.cost === g.least).length} of 60 at the least cost`)
    holds('plans below the least cost', graphs.filter((g) => g.cost < g.least).length, 0, String)
    holds('mean excess', mean(graphs.map((g) => g.excess)), 0.01, percent)
    say(`  largest excess ${percent(largest(graphs.map((g) => g.excess)))}`)
    const seasons = []
    for (const seed of seeds(12)) seasons.push(await seasonExcess(seed))
    say('12 seasons of 20 jobs against the proved optimum')
    holds('largest excess', largest(seasons.map((s) => s.excess)), 0.01, percent)
    say(`  mean excess ${percent(mean(seasons.map((s) => s.excess)))}`)
    const years = seeds(5).map((seed) => yearExcess(seed))
    say('5 years of 300 jobs against ten times longer searches')
    holds('largest excess', largest(years.map((y) => y.excess)), 0.02, percent)
    say(`  mean excess ${percent(mean(years.map((y) => y.excess)))}`)
  },
}

say(`Seeds from ${first}.`)
for (const [name, section] of Object.entries(sections))
  if (asked.length === 0 || asked.includes(name)) await section()
