import { adjust, type Adjusted, type Measured, type OnSide, type SurveyPoint } from '@border/core'

/** What is typed beside the bed: points that are known and to be found, and what was measured between them. */
export interface Tapes {
  points: readonly SurveyPoint[]
  measured: readonly Measured[]
  sides: readonly OnSide[]
}

export const NO_TAPES: Tapes = { points: [], measured: [], sides: [] }

const keyOf = (gardenId: string) => `border.tapes.${gardenId}`

/** What was typed on this device and not drawn yet: it outlives the page, and needs no connection. */
export function keptTapes(gardenId: string): Tapes {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(gardenId)) ?? 'null') as Tapes | null
    return kept && Array.isArray(kept.points) && Array.isArray(kept.measured)
      ? { ...NO_TAPES, ...kept }
      : NO_TAPES
  } catch {
    return NO_TAPES
  }
}

export const keepTapes = (gardenId: string, tapes: Tapes): void =>
  localStorage.setItem(keyOf(gardenId), JSON.stringify(tapes))

/** The name after the last of those that are to be found: P1, P2 … */
export function nextPoint({ points }: Tapes): string {
  const used = new Set(points.map((p) => p.id))
  for (let n = 1; ; n++) if (!used.has(`P${n}`)) return `P${n}`
}

export const isKnown = (p: SurveyPoint): boolean => p.x !== undefined && p.y !== undefined

export const adjusted = ({ points, measured, sides }: Tapes): Adjusted => adjust(points, measured, sides)

/** A measurement in words, as it was typed. */
export function measuredWords(m: Measured): string {
  switch (m.kind) {
    case 'distance':
      return `${m.from} to ${m.to}: ${m.metres.toFixed(2)} m`
    case 'offset':
      return `${m.to}: ${m.alongM.toFixed(2)} m along ${m.base[0]}–${m.base[1]}, ${Math.abs(m.offM).toFixed(2)} m to the ${m.offM >= 0 ? 'left' : 'right'}`
    case 'right angle':
      return `square at ${m.at}, ${m.from} and ${m.to}`
    case 'bearing':
      return `${m.from} to ${m.to}: ${m.deg.toFixed(0)}°`
  }
}

/** Without a point, and all that was measured to it. */
export const withoutPoint = (tapes: Tapes, id: string): Tapes => ({
  points: tapes.points.filter((p) => p.id !== id),
  measured: tapes.measured.filter((m) => !namesIn(m).includes(id)),
  sides: tapes.sides.filter((s) => s.point !== id && !s.of.includes(id)),
})

const namesIn = (m: Measured): readonly string[] =>
  m.kind === 'offset' ? [...m.base, m.to] : m.kind === 'right angle' ? [m.at, m.from, m.to] : [m.from, m.to]
