import { quarterHours, type SunHours, type Taxon } from '@border/core'
import { shortMonthYear } from '../frame/words.ts'

const MOST = 14
const WIDTH = 280

/** Hours before (open) and now (filled) against the band a taxon likes. */
export function RangeStrip({
  taxon,
  before,
  now,
  then,
}: {
  taxon: Taxon
  before: SunHours
  now: SunHours
  then: string
}) {
  const x = (h: number) => (Math.min(MOST, h) / MOST) * (WIDTH - 12) + 6
  const likes =
    taxon.lightMaxHours >= 24
      ? `${taxon.lightMinHours} h or more`
      : `${taxon.lightMinHours} to ${taxon.lightMaxHours} h`
  return (
    <svg
      className="range-strip"
      viewBox={`0 0 ${WIDTH} 16`}
      preserveAspectRatio="xMinYMid meet"
      role="img"
      aria-label={`Likes ${likes}; ${quarterHours(before.total)} in ${shortMonthYear(then)}, ${quarterHours(now.total)} now`}
    >
      <line x1={0} x2={WIDTH} y1={8} y2={8} stroke="var(--rule)" />
      <rect
        x={x(taxon.lightMinHours)}
        width={Math.max(3, x(taxon.lightMaxHours) - x(taxon.lightMinHours))}
        y={3}
        height={10}
        rx={2}
        fill="var(--likes)"
        stroke="var(--open)"
        strokeWidth={0.6}
      />
      <line x1={x(before.total)} x2={x(now.total)} y1={8} y2={8} stroke="var(--ink)" />
      <circle cx={x(before.total)} cy={8} r={3.8} fill="var(--sheet)" stroke="var(--ink)" />
      <circle cx={x(now.total)} cy={8} r={4.6} fill="var(--ink)" />
    </svg>
  )
}
