import { mkdirSync } from 'node:fs'
import { join } from 'node:path'

/** The project's folder and what it keeps beside itself. */
export const projectRoot = join(import.meta.dirname, '..', '..')
export const stateFolder = join(projectRoot, '.border')
mkdirSync(stateFolder, { recursive: true })

export const inState = (name: string): string => join(stateFolder, name)
