import { hasCorners, isRounded, type Vessel } from './vessel.ts'

type Inside = Pick<
  Vessel,
  'shape' | 'lengthM' | 'widthM' | 'footLengthM' | 'footWidthM' | 'depthM' | 'rimGapM'
>

/** Across the inside at a height above the floor, metres: along and across. */
export function acrossAt(v: Inside, heightM: number): { lengthM: number; widthM: number } {
  const share = Math.min(1, Math.max(0, heightM / v.depthM))
  if (!isRounded(v))
    return {
      lengthM: v.footLengthM + share * (v.lengthM - v.footLengthM),
      widthM: v.footWidthM + share * (v.widthM - v.footWidthM),
    }
  const half = Math.sqrt(Math.max(0, roundedSquare(v, share * v.depthM)))
  return { lengthM: 2 * half, widthM: 2 * half }
}

/**
 * Square of the half width of a bowl at a height above its floor: a cap of a sphere as far as that is no deeper than its opening
 * is wide to the middle, half a spheroid where it is deeper.
 */
function roundedSquare({ widthM, depthM }: Inside, heightM: number): number {
  const a = widthM / 2
  if (depthM > a) return a ** 2 * ((2 * heightM) / depthM - (heightM / depthM) ** 2)
  const radius = (a ** 2 + depthM ** 2) / (2 * depthM)
  return 2 * radius * heightM - heightM ** 2
}

/** What is inside at a height above the floor, square metres. */
export function sectionM2(v: Inside, heightM: number): number {
  return areaAcross(v, acrossAt(v, heightM))
}

/** What a shape covers that is so far across, square metres. */
export function areaAcross(
  v: Pick<Vessel, 'shape'>,
  { lengthM, widthM }: { lengthM: number; widthM: number },
): number {
  if (hasCorners(v)) return lengthM * widthM
  const whole = (Math.PI / 4) * lengthM * widthM
  return v.shape === 'half round' ? whole / 2 : whole
}

/**
 * Litres up to a height above the floor: by the prismoidal formula, which is exact for whatever has a section that is a polynomial of
 * the height of the third degree at most, as all these have (h/6 of foot, four times the middle, and top).
 */
export function litresTo(v: Inside, heightM: number): number {
  const h = Math.min(v.depthM, Math.max(0, heightM))
  return (1000 * h * (sectionM2(v, 0) + 4 * sectionM2(v, h / 2) + sectionM2(v, h))) / 6
}

/** Litres to the brim. */
export const brimfulLitres = (v: Inside): number => litresTo(v, v.depthM)

/** Litres of mix, filled to below the rim. */
export const mixLitresOf = (v: Inside): number => litresTo(v, v.depthM - v.rimGapM)

/** Litres in the uppermost share of the mix by depth: a top third. */
export const topLitres = (v: Inside, share: number): number =>
  mixLitresOf(v) - litresTo(v, (v.depthM - v.rimGapM) * (1 - share))

/** Surface of the mix, square metres: what is planted, and what rain falls on. */
export const mixSurfaceM2 = (v: Inside): number => sectionM2(v, v.depthM - v.rimGapM)

/** Where its wall and floor are cut for the sum of its surface. */
const SLICES = 64

/** Its wall and floor inside, square metres: the wall in slices, each of the length of its slope. */
export function wallM2(v: Inside): { side: number; floor: number } {
  const around = ({ lengthM, widthM }: { lengthM: number; widthM: number }) =>
    hasCorners(v)
      ? 2 * (lengthM + widthM)
      : v.shape === 'half round'
        ? (Math.PI / 2 + 1) * widthM
        : Math.PI * widthM
  let side = 0
  // Evenly by angle where the floor is rounded: there the wall lies flat at first.
  const at = (i: number) =>
    isRounded(v) ? v.depthM * (1 - Math.cos(((i / SLICES) * Math.PI) / 2)) : (v.depthM * i) / SLICES
  for (let i = 0; i < SLICES; i++) {
    const [low, high] = [acrossAt(v, at(i)), acrossAt(v, at(i + 1))]
    const slope = Math.hypot(at(i + 1) - at(i), (high.widthM - low.widthM) / 2)
    side += ((around(low) + around(high)) / 2) * slope
  }
  return { side, floor: sectionM2(v, 0) }
}
