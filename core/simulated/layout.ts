import { groundM2, library, type Taxon } from '../src/plants/index.ts'
import { seededRandom } from '../src/random/index.ts'
import type { LayoutProblem } from '../src/rework/index.ts'

/** A bed with drifts to be laid out in it, of which nobody has laid out any. @param areaM2 of the bed */
export function simulatedLayout(seed: number, areaM2: number, drifts: number, cellM = 0.25): LayoutProblem {
  const random = seededRandom(seed)
  const depthM = Math.sqrt(areaM2) * (0.45 + 0.4 * random())
  const lengthM = areaM2 / depthM
  // Its back edge swings in and out.
  const bulge = 0.3 * depthM * random()
  const shadeAt = lengthM * random()
  const cells: { x: number; y: number }[] = []
  for (let x = cellM / 2; x < lengthM; x += cellM)
    for (let y = cellM / 2; y < depthM + bulge * Math.sin((3 * x) / lengthM); y += cellM) cells.push({ x, y })
  const hours = cells.map((c) => 8 - 5 * Math.exp(-(((c.x - shadeAt) / (0.25 * lengthM)) ** 2)))
  const kinds = library.filter((t) => t.lifeForm !== 'bulb' && t.heightM <= 2.2 && t.spacingM <= 0.9)
  const chosen = Array.from({ length: drifts }, (): Taxon => kinds[Math.floor(random() * kinds.length)]!)
  const shares = chosen.map(() => 0.5 + random())
  const all = shares.reduce((a, b) => a + b, 0)
  const groundOfBed = 0.92 * cells.length * cellM ** 2
  return {
    cells,
    cellM,
    viewedFrom: random() < 0.7 ? [180] : [180, 0],
    drifts: chosen.map((taxon, i) => {
      const count = Math.max(1, Math.round(((shares[i]! / all) * groundOfBed) / groundM2(1, taxon.spacingM)))
      return {
        id: `d${i}`,
        taxon,
        count,
        areaM2: groundM2(count, taxon.spacingM),
        fit: Float32Array.from(hours, (h) =>
          Math.max(0, 1 - 0.3 * Math.max(0, taxon.lightMinHours - h, h - taxon.lightMaxHours)),
        ),
      }
    }),
  }
}
