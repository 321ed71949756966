/** Drip lines as they are laid and sold. */
export interface DripLine {
  /** From line to line, and from emitter to emitter along it. */
  lineSpacingM: number
  emitterSpacingM: number
  emitterLitresPerHour: number
}

/** What a bed takes of drip line, and how long it runs. */
export interface Drip {
  lineM: number
  emitters: number
  litresPerHour: number
  /** How fast it wets the bed, millimetres an hour. */
  mmPerHour: number
  /** Minutes for the water that is wanted. */
  minutes: number
  /** Lines that must run one after another, for the tap gives no more at once. */
  turns: number
}

/** Of what a drip line gives roots take about so much; the rest goes below or evaporates. Usual of design tables. */
export const DRIP_REACHES = 0.9

/**
 * Drip line for a bed, and its running time for so much water: one millimetre is a litre on a square metre.
 *
 * @param tapLitresPerHour what the tap gives; undefined where nobody has measured it
 */
export function dripFor(
  areaM2: number,
  { lineSpacingM, emitterSpacingM, emitterLitresPerHour }: DripLine,
  mm: number,
  tapLitresPerHour?: number,
): Drip {
  const lineM = areaM2 / lineSpacingM
  const emitters = Math.round(lineM / emitterSpacingM)
  const litresPerHour = emitters * emitterLitresPerHour
  const mmPerHour = areaM2 > 0 ? litresPerHour / areaM2 : 0
  return {
    lineM,
    emitters,
    litresPerHour,
    mmPerHour,
    minutes: mmPerHour > 0 ? (60 * mm) / DRIP_REACHES / mmPerHour : 0,
    turns: tapLitresPerHour ? Math.max(1, Math.ceil(litresPerHour / tapLitresPerHour)) : 1,
  }
}
