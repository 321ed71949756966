import type { PictureView } from '@border/contract'
import { finestM, groundShown, lieOf, type Extent, type Lie } from '@border/core'
import { useEffect, useMemo, useState } from 'react'
import { workers } from '../frame/workers.ts'
import type { PlanScale } from '../plan/scale.ts'
import { pictureAddress } from './queries.ts'
import type { WarpWorker } from './warpWorker.ts'

type Laid = Pick<PictureView, 'id' | 'width' | 'height' | 'laying' | 'strength'>

interface Props {
  gardenId: string
  pictures: readonly Laid[]
  scale: PlanScale
}

/** Pictures where they lie under the plan, the first lowest. */
export const PicturesUnder = ({ gardenId, pictures, scale }: Props) => (
  <g className="plan-pictures">
    {pictures.map((p) => (
      <PictureUnder key={p.id} address={pictureAddress(gardenId, p)} picture={p} scale={scale} />
    ))}
  </g>
)

interface OneProps {
  address: string
  picture: Laid
  scale: PlanScale
}

function PictureUnder({ address, picture, scale }: OneProps) {
  const lies = useMemo(() => picture.laying && lieOf(picture.laying), [picture.laying])
  if (!lies?.ok) return null
  const { lie } = lies
  const [a, b, c, d, e, f, g, h] = lie.homography
  if (g !== 0 || h !== 0) return <Slanting {...{ address, picture, lie, scale }} />
  const k = scale.pxPerM
  return (
    <image
      href={address}
      width={picture.width}
      height={picture.height}
      opacity={picture.strength}
      transform={`matrix(${k * a} ${-k * d} ${k * b} ${-k * e} ${scale.x(c)} ${scale.y(f)})`}
    />
  )
}

const askWarp = workers<WarpWorker, 'straighten'>(
  () => new Worker(new URL('./warpWorker.ts', import.meta.url), { type: 'module' }),
  'Straightening the picture failed',
)

/** Longest side of a straightened picture, points. */
const LONGEST = 2200

function Slanting({ address, picture, lie, scale }: OneProps & { lie: Lie }) {
  const ground = useMemo(() => groundShown(lie, picture.width, picture.height), [lie, picture])
  const made = useStraightened(address, lie, ground)
  if (!made) return null
  return (
    <image
      href={made.href}
      x={scale.x(made.ground.minX)}
      y={scale.y(made.ground.maxY)}
      width={(made.ground.maxX - made.ground.minX) * scale.pxPerM}
      height={(made.ground.maxY - made.ground.minY) * scale.pxPerM}
      opacity={picture.strength}
      preserveAspectRatio="none"
    />
  )
}

/** The picture from straight above, made by a worker; while its points move, as it last was. */
function useStraightened(address: string, lie: Lie, ground: Extent) {
  const [made, setMade] = useState<{ href: string; ground: Extent }>()
  useEffect(() => {
    let isWanted = true
    const [w, h] = [ground.maxX - ground.minX, ground.maxY - ground.minY]
    const most = Math.round((LONGEST * w) / Math.max(w, h))
    const width = Math.max(1, Math.min(most, Math.ceil(w / finestM(lie))))
    askWarp('straighten', (worker) => worker.straighten(address, lie.homography, ground, width)).then(
      (blob) => isWanted && setMade({ href: URL.createObjectURL(blob), ground }),
      // A picture that cannot be had is not shown; nothing else hangs on it.
      () => {},
    )
    return () => {
      isWanted = false
    }
  }, [address, lie, ground])
  const href = made?.href
  useEffect(() => () => void (href && URL.revokeObjectURL(href)), [href])
  return made
}
