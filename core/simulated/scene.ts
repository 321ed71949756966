import { seededRandom } from '../src/random/index.ts'
import type { Ring } from '../src/geometry/index.ts'
import type { Scene } from '../src/light/index.ts'
import type { CrownShape, Obstruction } from '../src/light/index.ts'

/** A made-up garden for measuring and for tests: beds in the middle, things of every kind round them. */
export interface SampleScene {
  scene: Scene
  beds: Ring[]
}

/**
 * @param obstructions how many: of every ten, two buildings, three walls, fences or hedges and five trees
 * @param bedM2 ground of the beds together
 */
export function sampleScene(seed: number, obstructions = 20, bedM2 = 312.5): SampleScene {
  const random = seededRandom(seed)
  const between = (low: number, high: number) => low + (high - low) * random()
  // Four beds two to one, two by two, with paths of 2 m between.
  const depth = Math.sqrt(bedM2 / 8)
  const beds = [0, 1, 2, 3].map((k): Ring => {
    const x = (k % 2) * (2 * depth + 2)
    const y = Math.floor(k / 2) * (depth + 2)
    return [
      [x, y],
      [x + 2 * depth, y],
      [x + 2 * depth, y + depth],
      [x, y + depth],
    ]
  })
  const width = 4 * depth + 2
  const height = 2 * depth + 2
  /** A point in the ring from 2 to 12 m outside the beds. */
  const around = (): [number, number] => {
    const out = between(2, 12)
    const side = Math.floor(between(0, 4))
    const along = random()
    if (side === 0) return [along * width, -out]
    if (side === 1) return [along * width, height + out]
    return [side === 2 ? -out : width + out, along * height]
  }
  const one = (k: number): Obstruction => {
    const id = `o${k}`
    const [x, y] = around()
    const turn = between(0, Math.PI)
    const along = (length: number): [number, number] => [
      x + length * Math.cos(turn),
      y + length * Math.sin(turn),
    ]
    const kind = k % 10
    if (kind < 2) {
      const [dx, dy] = [between(1, 4) * Math.cos(turn), between(1, 4) * Math.sin(turn)]
      const ring: Ring = [
        [x - dx, y - dy],
        [x + dy, y - dx],
        [x + dx, y + dy],
        [x - dy, y + dx],
      ]
      const overhang = kind === 1 ? { depthM: between(0.3, 1), heightM: between(2, 3) } : null
      return { id, name: id, kind: 'building', ring, heightM: between(2.5, 9), overhang }
    }
    if (kind < 5) {
      const line: [number, number][] = [[x, y], along(between(3, 10))]
      if (kind === 4) line.push([line[1]![0] + between(-4, 4), line[1]![1] + between(-4, 4)])
      return {
        id,
        name: id,
        kind: (['wall', 'fence', 'hedge'] as const)[kind - 2]!,
        line,
        heightM: between(1, 3),
        transmission: [0, 0.5, 0.1][kind - 2]!,
        thicknessM: [0, 0, between(0.4, 1)][kind - 2]!,
      }
    }
    const heightM = between(4, 14)
    return {
      id,
      name: id,
      kind: 'tree',
      x,
      y,
      trunkRadiusM: 0.15,
      clearStemM: between(0.3, 2.5),
      heightM,
      crownRadiusM: between(1, 4),
      crownShape: (['ellipsoid', 'ellipsoid', 'ellipsoid', 'cone', 'column'] as CrownShape[])[kind - 5]!,
      transmissionInLeaf: between(0.05, 0.3),
      transmissionBare: 0.6,
      leafFrom: kind === 8 ? null : '04-20',
      leafTo: kind === 8 ? null : '11-01',
    }
  }
  return {
    scene: {
      latitudeDeg: between(35, 58),
      longitudeDeg: 0,
      northDeg: between(-40, 40),
      obstructions: Array.from({ length: obstructions }, (_, k) => one(k)),
    },
    beds,
  }
}
