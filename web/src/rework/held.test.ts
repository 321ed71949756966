import { describe, expect, it } from 'vitest'
import type { RecordView, SeasonFigures } from '@border/contract'
import { heldKinds, heldWords, isWeak, type HeldDrift } from './held.ts'

const drift = (common: string, planted: number, living: number, ...plantingIds: string[]): HeldDrift => ({
  common,
  planted,
  living,
  plantingIds,
})
const stay = (
  plantingId: string,
  ...scores: [year: number, rating: number][]
): RecordView['stays'][number] => ({
  id: plantingId,
  plantingId,
  tag: plantingId,
  botanical: 'Hosta sieboldiana',
  placeId: 'p',
  from: '2023-10-01',
  to: null,
  plantedCount: 3,
  livingCount: 3,
  scores: scores.map(([year, rating]): SeasonFigures => [year, rating, rating + 0.3, 2, '']),
})

describe('what held of a scheme', () => {
  it('is told by kind, whatever drifts it stands in', () => {
    expect(heldWords(heldKinds([drift('hosta', 3, 3), drift('fescue', 4, 4)], []))).toBe(
      'All 7 plants set are alive.',
    )
    expect(
      heldWords(heldKinds([drift('fescue', 3, 1), drift('fescue', 2, 2), drift('hosta', 5, 5)], [])),
    ).toBe('Of 10 plants set, 8 are alive, 80 in a hundred. Lost: 2 of 5 fescue.')
  })

  it('has the mean of what its own plantings were given, by season, and says what was rated low last', () => {
    const kinds = heldKinds(
      [drift('hosta', 3, 3, 'a', 'b'), drift('fescue', 4, 3, 'c'), drift('phlox', 5, 5, 'e')],
      [
        stay('a', [2024, 3], [2025, 4]),
        stay('b', [2025, 5]),
        stay('c', [2025, 4], [2024, 2]),
        stay('d', [2025, 1]),
      ],
    )
    expect(kinds).toEqual([
      { common: 'fescue', planted: 4, living: 3, seasons: [{ year: 2024, rating: 2 }, { year: 2025, rating: 4 }] }, // prettier-ignore
      { common: 'hosta', planted: 3, living: 3, seasons: [{ year: 2024, rating: 3 }, { year: 2025, rating: 4.5 }] }, // prettier-ignore
      { common: 'phlox', planted: 5, living: 5, seasons: [] },
    ])
    expect(kinds.map(isWeak)).toEqual([false, false, false])
    const [low] = heldKinds([drift('aster', 2, 2, 'x')], [stay('x', [2024, 5], [2025, 2.9])])
    expect(isWeak(low!)).toBe(true)
  })
})
