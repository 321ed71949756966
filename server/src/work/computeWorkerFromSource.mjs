import { buildSync } from 'esbuild'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/**
 * The compute thread when the server runs from source: a thread does not inherit the loader that reads TypeScript. Put together in
 * one file it is there in a fifth of the time that reading module by module takes.
 */
const folder = mkdtempSync(join(tmpdir(), 'border-compute-'))
const outfile = join(folder, 'computeWorker.mjs')
buildSync({
  entryPoints: [join(import.meta.dirname, 'computeWorker.ts')],
  outfile,
  bundle: true,
  platform: 'node',
  format: 'esm',
  sourcemap: 'inline',
})
export const {
  light,
  spots,
  judge,
  ahead,
  whatIfs,
  explain,
  record,
  bloom,
  diagnose,
  schedule,
  scheduleTelling,
  why,
  care,
  successions,
  planFile,
  plantingsFile,
  weatherFile,
  taxaFile,
  observationsFile,
  soilFile,
  logFile,
} = await import(outfile)
rmSync(folder, { recursive: true })
