import { generateWeather } from '@border/core'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { townPattern } from './town.ts'

/** Writes the example folder's weather record: `npm run example -w demo`. Same pattern, same file. */
const file = join(import.meta.dirname, '..', '..', 'examples', 'walled-court', 'weather.csv')
const rows = generateWeather(townPattern, 2013, 2025).map((d) => `${d.day},${d.minC},${d.maxC},${d.rainMm}`)
writeFileSync(file, `${['day,min_c,max_c,rain_mm', ...rows].join('\n')}\n`)
