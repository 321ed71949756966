import type { IsoDate } from '../dates/index.ts'
import type { MixTraits } from './mix.ts'

/**
 * A sample of a mix, dry, filled to the brim with water through shut holes and let drain: what runs out is air afterwards, what stays is
 * what it holds. The way of nurseries (Bilderback, Warren, Owen and Albano, HortTechnology 15, 2005), in a pot about 20 cm tall.
 */
export interface DrainTest {
  day: IsoDate
  /** Room of the pot that the sample filled, litres. */
  sampleLitres: number
  /** Water that it took until it stood at the brim, litres: less than its room. */
  filledLitres: number
  /** Of that, what ran out, litres. */
  drainedLitres: number
}

/** What of a test cannot have been read, and why; undefined where nothing speaks against it. */
export function drainTestFault({
  sampleLitres,
  filledLitres,
  drainedLitres,
}: Omit<DrainTest, 'day'>): { of: keyof DrainTest; says: string } | undefined {
  if (filledLitres >= sampleLitres)
    return {
      of: 'filledLitres',
      says: 'The mix cannot take as much water as the empty pot holds: its grains take room as well.',
    }
  if (drainedLitres >= filledLitres)
    return { of: 'drainedLitres', says: 'Less runs out than was poured in: some of it stays in the mix.' }
  return undefined
}

/** Air and water of a tested mix once drained, shares of its volume. */
export const testedTraits = ({
  sampleLitres,
  filledLitres,
  drainedLitres,
}: Omit<DrainTest, 'day'>): Pick<MixTraits, 'air' | 'water'> => ({
  air: drainedLitres / sampleLitres,
  water: (filledLitres - drainedLitres) / sampleLitres,
})

/**
 * What is worked out of a mix, put right by a test of it: what is solid and what holds water, each by as much as it was out on the day of
 * the test. Of that day it is what was measured; later it ages from there.
 *
 * @param then what was worked out for the day of the test
 */
export function putRight(now: MixTraits, then: MixTraits, test: DrainTest): MixTraits {
  const found = testedTraits(test)
  const solidOf = ({ air, water }: Pick<MixTraits, 'air' | 'water'>) => 1 - air - water
  const solid = Math.min(1, (solidOf(now) * solidOf(found)) / solidOf(then))
  const wetter = found.water / then.water
  const water = Math.min(1 - solid, now.water * wetter)
  return { ...now, air: 1 - solid - water, water, available: Math.min(water, now.available * wetter) }
}
