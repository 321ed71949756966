import type { SoilTexture } from '../garden/index.ts'

/** What moves the reaction of a soil, and how much of it. */
export interface SoilDose {
  with: 'sulphur' | 'ground limestone'
  /** Kilograms a square metre: in all, and at once, so that roots are not burnt. */
  inAllKgM2: number
  nowKgM2: number
}

/**
 * Kilograms a square metre that move the reaction by one unit, by texture: the finer a soil, the more it takes. Rounded from the tables
 * that soil laboratories and extension services hand out with a test.
 */
const sulphurPerUnit: Record<SoilTexture, number> = {
  sand: 0.05,
  'sandy loam': 0.08,
  loam: 0.11,
  silt: 0.11,
  'clay loam': 0.14,
  clay: 0.17,
  chalk: Infinity,
}
const limePerUnit: Record<SoilTexture, number> = {
  sand: 0.15,
  'sandy loam': 0.2,
  loam: 0.3,
  silt: 0.3,
  'clay loam': 0.4,
  clay: 0.5,
  chalk: 0.3,
}
/** No more at once: what is over burns roots. The same sources. */
const AT_ONCE = { sulphur: 0.1, 'ground limestone': 0.25 }

/**
 * What moves a soil from one reaction to another.
 *
 * @param texture taken for loam where nobody has said
 * @returns undefined where nothing would: it is there already, or free lime would undo sulphur as fast as it works
 */
export function soilDose(fromPh: number, toPh: number, texture: SoilTexture = 'loam'): SoilDose | undefined {
  const by = Math.abs(toPh - fromPh)
  const dose = toPh < fromPh ? ('sulphur' as const) : ('ground limestone' as const)
  const inAllKgM2 = by * (dose === 'sulphur' ? sulphurPerUnit : limePerUnit)[texture]
  if (by === 0 || !Number.isFinite(inAllKgM2)) return undefined
  return { with: dose, inAllKgM2, nowKgM2: Math.min(inAllKgM2, AT_ONCE[dose]) }
}

/** One giving of what moves a soil. */
export interface DoseTurn {
  kgM2: number
  /** Months after the first. */
  afterMonths: number
}

/** Half a year between givings, and a test before each: the reaction of soil moves slowly. */
const MONTHS_BETWEEN = 6
/**
 * Aluminium sulphate in place of sulphur: about six times as much, and no more at once than this, kilograms a square metre, for too much
 * aluminium harms roots. The tables of the same laboratories.
 */
const ALUMINIUM = { perSulphur: 6, atOnceKgM2: 0.25 }

/**
 * A dose in turns of no more than is good at once, each after a test.
 *
 * @param instead aluminium sulphate in place of sulphur: quicker, six times as much of it, and blue for hydrangeas
 */
export function doseTurns(
  dose: SoilDose,
  instead?: 'aluminium sulphate',
): { with: SoilDose['with'] | 'aluminium sulphate'; inAllKgM2: number; turns: DoseTurn[] } {
  const isAluminium = instead !== undefined && dose.with === 'sulphur'
  const inAllKgM2 = isAluminium ? ALUMINIUM.perSulphur * dose.inAllKgM2 : dose.inAllKgM2
  const atOnceKgM2 = isAluminium ? ALUMINIUM.atOnceKgM2 : AT_ONCE[dose.with]
  const number = Math.ceil(inAllKgM2 / atOnceKgM2 - 1e-9)
  return {
    with: isAluminium ? instead : dose.with,
    inAllKgM2,
    turns: Array.from({ length: number }, (_, i) => ({
      kgM2: Math.min(atOnceKgM2, inAllKgM2 - i * atOnceKgM2),
      afterMonths: i * MONTHS_BETWEEN,
    })),
  }
}
