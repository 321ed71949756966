import { climateOf, generateWeather, patternAt, type Climate } from '../index.ts'

const found = climateOf(generateWeather(patternAt({ latitude: 51.5, longitude: -0.1 }), 2008, 2025), 51.5)
if (!found.ok) throw new Error(found.reason)

/** Mild winters, cool summers: eighteen made-up years. */
export const london: Climate = found.climate
