import { highsSolver, type SolveMilp } from '@border/core'
import loadHighs from 'highs'

let loaded: Promise<SolveMilp> | undefined
/** The solver of this thread: made ready once, which takes a second. */
export const solver = (): Promise<SolveMilp> => (loaded ??= loadHighs().then(highsSolver))
