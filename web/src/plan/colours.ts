import { interpolateRgbBasis } from 'd3-interpolate'
import { scaleDiverging, scaleSequential } from 'd3-scale'

/** Hours at which the sequential scale is full: lighter beyond tells nothing more than full sun. */
export const MOST_HOURS = 12
export const MOST_CHANGE = 6

/** Deep shade dark and blue, full sun pale and yellow: the lightness alone tells it, so it survives grey print. */
export const hoursColour = scaleSequential(
  interpolateRgbBasis(['#22395a', '#3f5f80', '#76909c', '#b5b795', '#e6d27e', '#f5e08c', '#fbefb8']),
)
  .domain([0, MOST_HOURS])
  .clamp(true)

/** Less sun blue, more sun orange, no change paper. */
export const changeColour = scaleDiverging(
  interpolateRgbBasis(['#1f4e79', '#7fa6c4', '#f1efe9', '#e3a06a', '#a8470f']),
)
  .domain([-MOST_CHANGE, 0, MOST_CHANGE])
  .clamp(true)
