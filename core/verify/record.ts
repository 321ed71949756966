import { denseReml } from '../reference/denseReml.ts'
import { thinRecord, type ThinRecord } from '../simulated/thinRecord.ts'
import { ratingPrior, recordModel, type RecordModel } from '../src/performance/index.ts'

/** How far the engine's record of a thin garden lies from that of the whole covariance matrix. */
export interface RecordDeviation {
  thin: string
  /** Undefined where there are too few scores for a model. */
  model: RecordModel | undefined
  /** Largest difference of what is expected of a planting, in ratings. */
  expected: number
  /** Largest difference of its standard error, of its own size. */
  se: number
}

/**
 * The reference knows nothing of what can be told apart: it is given every source, and what it expects of a planting is the same
 * however it shares out what it cannot know.
 *
 * @param seed of the garden
 * @param mostRecords above this the reference takes long: no garden is given
 */
export function recordDeviation(seed: number, mostRecords = Infinity): RecordDeviation | undefined {
  const { plantings, scores, lightOf, thin } = thinRecord(seed)
  if (scores.length > mostRecords) return undefined
  const model = recordModel(plantings, scores, lightOf)
  if (!model) return { thin, model, expected: 0, se: 0 }
  const factors = factorsOf({ plantings, scores, lightOf })
  const starts = [
    [...factors.map(() => 0.4), 0.4],
    [...factors.map(() => 0.05), 0.6],
    ...factors.map((_, k) => [...factors.map((_, i) => (i === k ? 0.9 : 0.1)), 0.3]),
  ]
  const { scale, error } = ratingPrior
  const dense = denseReml(
    {
      y: scores.map((s) => s.adjusted),
      weight: scores.map((s) => s.weight),
      factors,
      prior: { scale, ...error },
    },
    starts,
  )
  const differences = model.plantings.map(({ key, expected }) => {
    const record = scores.findIndex((s) => s.plantingId === key)
    // All sources but the year: the planting where it stands, in an average year.
    const reference = dense.predict(
      record,
      factors.map((_, k) => k).filter((k) => k !== YEAR),
    )
    return {
      expected: Math.abs(expected.score - reference.estimate),
      se: Math.abs(expected.se / reference.se - 1),
    }
  })
  // NaN stays NaN: it is no small difference.
  return {
    thin,
    model,
    expected: Math.max(...differences.map((d) => d.expected)),
    se: Math.max(...differences.map((d) => d.se)),
  }
}

const YEAR = 0

/** The level of each score by year, place, taxon, planting and, where it tells, the taxon in its light. */
function factorsOf({ plantings, scores, lightOf }: Omit<ThinRecord, 'thin'>): number[][] {
  const planting = new Map(plantings.map((p) => [p.id, p]))
  const numbered = (keys: readonly string[]) => {
    const distinct = [...new Set(keys)]
    return keys.map((k) => distinct.indexOf(k))
  }
  const taxon = scores.map((s) => planting.get(s.plantingId)!.taxon.botanical)
  const light = scores.map((s, i) => `${taxon[i]} ${lightOf(s.plantingId) ?? 'unknown'}`)
  return [
    numbered(scores.map((s) => String(s.season))),
    numbered(scores.map((s) => planting.get(s.plantingId)!.placeId)),
    numbered(taxon),
    numbered(scores.map((s) => s.plantingId)),
    ...(new Set(light).size > new Set(taxon).size ? [numbered(light)] : []),
  ]
}
