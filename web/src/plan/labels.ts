/** A text that would like to stand centred at a point of the drawing, pixels. */
export interface WantedLabel {
  key: string
  text: string
  x: number
  y: number
  kind: 'place' | 'planting' | 'obstruction'
  /** Higher is placed first. */
  weight: number
}

export interface PlacedLabel extends WantedLabel {
  width: number
}

const HEIGHT = 15
const PX_PER_LETTER = { place: 7.4, planting: 6.4, obstruction: 6.2 } as const

/** The weightier first; of two alike the one that its text and its place put first, never its key, which is a row's. */
function inTurn(a: WantedLabel, b: WantedLabel): number {
  if (a.weight !== b.weight) return b.weight - a.weight
  if (a.text !== b.text) return a.text < b.text ? -1 : 1
  return a.x - b.x || a.y - b.y
}

/**
 * Labels that fit without covering each other or leaving the drawing; of two that collide the weightier stays, moved a
 * line up or down where that makes room.
 */
export function placeLabels(wanted: readonly WantedLabel[], width: number, height: number): PlacedLabel[] {
  const placed: PlacedLabel[] = []
  for (const label of [...wanted].sort(inTurn)) {
    const w = label.text.length * PX_PER_LETTER[label.kind] + 8
    const x = Math.min(width - w / 2 - 2, Math.max(w / 2 + 2, label.x))
    const free = [0, -HEIGHT, HEIGHT, -2 * HEIGHT, 2 * HEIGHT]
      .map((dy) => label.y + dy)
      .find((y) => fits(placed, x, y, w, height))
    if (free !== undefined) placed.push({ ...label, x, y: free, width: w })
  }
  return placed
}

function fits(placed: readonly PlacedLabel[], x: number, y: number, w: number, height: number): boolean {
  if (y < HEIGHT || y > height - 4) return false
  return placed.every((p) => Math.abs(p.x - x) > (p.width + w) / 2 || Math.abs(p.y - y) > HEIGHT)
}
