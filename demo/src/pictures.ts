import {
  bloomsOn,
  driftRadiusM,
  placeOf,
  ringOf,
  seededRandom,
  usualState,
  USUAL_YEAR,
  type IsoDate,
  type Plan,
} from '@border/core'
import sharp from 'sharp'
import type { Grown } from './history.ts'

const WIDTH = 900
const HEIGHT = 600
const GROUND_Y = 440
/** Metres of a bed that fit the frame. */
const FRAME_M = 11
/** What a metre further forward comes down by. */
const STEP_PX = 34
/** Years for a planting to reach its size, for the drawing. */
const GROWN_YEARS = 4

/**
 * A drawn stand-in for a photo of a bed from its fixed standpoint on a day: the plants where they stand, as tall as they
 * are by then, in leaf and flower as they usually are. Same day, same picture.
 */
export async function pictureOf(
  plan: Plan,
  place: string,
  grown: readonly Grown[],
  on: IsoDate,
): Promise<Buffer> {
  const feature = plan.features.find((f) => f.name === place)!
  const [x0, x1] = framed(feature)
  const random = seededRandom(Number(on.replaceAll('-', '')) + place.length)
  const scale = WIDTH / (x1 - x0)
  const here = grown
    .filter((g) => g.place === place && g.plantedOn <= on)
    .sort((a, b) => b.y - a.y || (a.tag < b.tag ? -1 : 1))
  const backY = Math.max(...here.map((g) => g.y), 0)
  const masses = here.map((g) => {
    const { phase } = usualState(g.taxon, on, USUAL_YEAR)
    if (phase === 'underground') return ''
    const years = (Date.parse(on) - Date.parse(g.plantedOn)) / 31_557_600_000
    const size = Math.min(1, 0.35 + (0.65 * years) / GROWN_YEARS) * (phase === 'emerging' ? 0.35 : 1)
    const radius = driftRadiusM(g.count, g.taxon.spacingM) * 1.3
    const flowers = bloomsOn(g.taxon, on.slice(5)) && g.taxon.flowerColour
    const slender = g.taxon.habit === 'spire' || g.taxon.habit === 'grass'
    return Array.from({ length: Math.max(12, Math.round(radius * 60)) }, () => {
      const x = (g.x - x0 + (random() * 2 - 1) * radius) * scale
      const h = Math.min(380, g.taxon.heightM * size * scale * 0.8) * (0.6 + 0.4 * random())
      const w = Math.max(5, Math.min(46, h * (slender ? 0.09 : 0.22)))
      const base = GROUND_Y + (backY - g.y) * STEP_PX + random() * 8
      const leaf = `<ellipse cx="${x.toFixed(0)}" cy="${(base - h / 2).toFixed(0)}" rx="${w.toFixed(0)}" ry="${(h / 2).toFixed(0)}" fill="${g.taxon.foliageColour}" fill-opacity="0.8"/>`
      const flower =
        flowers && random() < 0.5
          ? `<circle cx="${x.toFixed(0)}" cy="${(base - h).toFixed(0)}" r="${(3 + 5 * random()).toFixed(1)}" fill="${flowers}"/>`
          : ''
      return leaf + flower
    }).join('')
  })
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${WIDTH}" height="${HEIGHT}">
    <rect width="${WIDTH}" height="${HEIGHT}" fill="#c9d3d6"/>
    <rect y="230" width="${WIDTH}" height="${GROUND_Y - 230}" fill="#b9a48c"/>
    <rect y="230" width="${WIDTH}" height="10" fill="#9c8770"/>
    <rect y="${GROUND_Y - 20}" width="${WIDTH}" height="${HEIGHT - GROUND_Y + 20}" fill="#6d5a49"/>
    ${masses.join('\n')}
    <rect y="${HEIGHT - 46}" width="${WIDTH}" height="46" fill="#a9a294"/>
  </svg>`
  return sharp(Buffer.from(svg)).png().toBuffer()
}

/** The stretch of a place that its picture shows: all of it, or the middle of a long one. */
function framed(feature: Plan['features'][number]): [number, number] {
  if (feature.geometry.type === 'Point') {
    const [x] = feature.geometry.coordinates
    const pot = placeOf({ ...feature, id: feature.name })
    const r = pot?.kind === 'container' ? pot.radiusM : 0
    return [x! - r, x! + r]
  }
  const xs = ringOf(feature.geometry).map(([x]) => x)
  const [from, to] = [Math.min(...xs), Math.max(...xs)]
  const half = Math.min(FRAME_M, to - from) / 2
  return [(from + to) / 2 - half, (from + to) / 2 + half]
}
