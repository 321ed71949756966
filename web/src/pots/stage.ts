import type { PortraitFrame } from './PotPortrait.tsx'

/** Of the floor so much is seen behind the feet of what stands on it, pixels. */
const BEHIND = 22

/** The wall behind, and the floor from where they stand down. */
export const stageOf = ({ floor, height }: PortraitFrame) =>
  ({ '--floor': `${floor - BEHIND}px`, '--foot': `${height}px` }) as React.CSSProperties
