import { recordDeviation } from './record.ts'

/**
 * Holds the engine against references written apart from it, on seeded inputs, and prints the largest deviations. Ends with an
 * error where one is larger than it may be. The first seed can be given; today's is taken otherwise, so that no seed is old.
 */
const first = Number(process.argv[2] ?? Math.floor(Date.now() / 86_400_000))
const say = (text: string) => process.stdout.write(`${text}\n`)

/** @returns the largest of some deviations; NaN is larger than any */
const largest = (values: readonly number[]) => (values.some(Number.isNaN) ? NaN : Math.max(0, ...values))

function holds(what: string, deviation: number, most: number, unit: string): void {
  const isWithin = deviation <= most
  say(`${isWithin ? 'ok  ' : 'FAR '} ${what}: ${deviation.toPrecision(2)} ${unit}, ${most} at most`)
  if (!isWithin) process.exitCode = 1
}

const GARDENS = 200

function record(): void {
  const all = Array.from({ length: GARDENS }, (_, i) => recordDeviation(first + i)!)
  const modelled = all.filter((d) => d.model)
  say(
    `The record of ${GARDENS} thin gardens, ${modelled.length} with enough scores for a model, against dense REML:`,
  )
  holds('expected ratings', largest(modelled.map((d) => d.expected)), 0.02, 'of a rating')
  holds('standard errors', largest(modelled.map((d) => d.se)), 0.05, 'of their size')
  const shares = modelled.flatMap((d) => d.model!.shares)
  const tooWide = shares.filter((s) => s.share !== undefined && s.high - s.low > 0.5).length
  holds('shares said though their range is wider than a half', tooWide, 0, `of ${shares.length}`)
}

say(`Seeds from ${first}.`)
record()
