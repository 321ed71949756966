import type { Vessel } from '../garden/index.ts'
import { footOf, type Grown, type Weight } from './weight.ts'

/** Air at 15 °C, kilograms a cubic metre; gravity, metres a second squared. */
const AIR = 1.225
const GRAVITY = 9.81
/** Drag of a blunt body, and of leaves that give and let some wind through, on their outline: usual of tables of drag. */
const BLUNT = 1.1
const LEAVES = 0.4

/**
 * The gust that tips a container over, metres a second: the wind's moment about the edge of its foot against that of its weight, dry as
 * before watering (statics of a body on level ground).
 *
 * @returns Infinity for one that hangs
 */
export function tipsAt(v: Vessel, weight: Pick<Weight, 'dry'>, plants: readonly Grown[]): number {
  if (v.shape === 'hanging') return Infinity
  const high = v.depthM + v.wallM
  const broad = Math.max(v.lengthM, v.widthM) + 2 * v.wallM
  // Wind blows on its broad side, and tips it over the narrow way.
  const lever = footOf(v).widthM / 2
  const moment =
    BLUNT * broad * high * (high / 2) +
    plants.reduce((sum, p) => {
      // Plants of a pot stand before one another: the whole is as broad as the widest and what they spread over the rim.
      const side = (Math.PI / 4) * p.heightM * Math.min(p.spreadM * p.count, broad + p.spreadM)
      return sum + LEAVES * side * (high + p.heightM / 2)
    }, 0)
  return Math.sqrt((weight.dry * GRAVITY * lever) / (0.5 * AIR * moment))
}

/** Gusts that come to most gardens in most years: a strong gale, 21 metres a second (Beaufort 9). */
export const USUAL_GUST_MS = 21

/** What a container needs before winter or before it is used, each by itself. */
export type PotFault =
  | 'no holes'
  | 'frost bursts it'
  | 'frost may crack it'
  | 'no feet'
  | 'saucer in winter'
  | 'tips'
  | 'deck'
  | 'overhead'

/** Frost reaches the middle of a pot's wall from about here on: the mean of the years' lowest, degrees Celsius. */
const FROST_C = -2

/** Faults of a container as it stands. @param coldestC mean of the years' lowest temperatures */
export function faultsOf(v: Vessel, weight: Weight, plants: readonly Grown[], coldestC: number): PotFault[] {
  const freezes = coldestC <= FROST_C
  const found: [PotFault, boolean][] = [
    ['no holes', v.holes === 0],
    ['frost bursts it', freezes && v.material?.frost === 'bursts'],
    ['frost may crack it', freezes && v.material?.frost === 'may crack'],
    ['no feet', v.feet === false && v.shape !== 'hanging' && v.standsOn !== 'soil'],
    ['saucer in winter', freezes && v.saucer === true],
    ['tips', tipsAt(v, weight, plants) < USUAL_GUST_MS],
    ['deck', bearsOnStructure(v)],
    ['overhead', v.standsOn === 'wall top' || v.standsOn === 'shelf' || v.shape === 'hanging'],
  ]
  return found.flatMap(([fault, is]) => (is ? [fault] : []))
}

/** Whether a container stands on what somebody has reckoned to bear so much and no more. */
export const bearsOnStructure = ({ standsOn }: Pick<Vessel, 'standsOn'>): boolean =>
  standsOn === 'deck' || standsOn === 'balcony' || standsOn === 'roof'

/** What domestic floors and balconies are usually reckoned for, kilograms a square metre: codes ask for 150 to 200, some for more. */
export const USUAL_FLOOR_KG_PER_M2 = 150
