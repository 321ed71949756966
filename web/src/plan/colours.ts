import { lightClass, type LightClass } from '@border/core'
import { interpolateRgbBasis } from 'd3-interpolate'
import { scaleDiverging, scaleSequential } from 'd3-scale'

/** Hours at which the sequential scale is full: lighter beyond tells nothing more than full sun. */
export const MOST_HOURS = 12
/** The same for one part of the day. */
export const MOST_PART_HOURS = 6
export const MOST_CHANGE = 6

const ramp = interpolateRgbBasis([
  '#22395a',
  '#3f5f80',
  '#76909c',
  '#b5b795',
  '#e6d27e',
  '#f5e08c',
  '#fbefb8',
])

/** Deep shade dark and blue, full sun pale and yellow: the lightness alone tells it, so it survives grey print. */
export const hoursColour = scaleSequential(ramp).domain([0, MOST_HOURS]).clamp(true)
export const partHoursColour = scaleSequential(ramp).domain([0, MOST_PART_HOURS]).clamp(true)

/** The trade's words for hours, darkest first, in steps far enough apart to tell without the key. */
export const classColours: Record<LightClass, string> = {
  shade: '#2f4a6d',
  'part shade': '#7d97a3',
  'part sun': '#d3c88a',
  'full sun': '#faecb0',
}
export const classColour = (hours: number): string => classColours[lightClass(hours)]

/** Less sun blue, more sun orange, no change paper. */
export const changeColour = scaleDiverging(
  interpolateRgbBasis(['#1f4e79', '#7fa6c4', '#f1efe9', '#e3a06a', '#a8470f']),
)
  .domain([-MOST_CHANGE, 0, MOST_CHANGE])
  .clamp(true)
