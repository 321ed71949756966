import type { Plugin } from 'vite'
import { firstScreens, pageScripts, screenScripts, type Bundle } from './firstScripts.ts'

/**
 * Said at the head of a script: all of it is called while the page loads. A browser that understands compiles it then, beside the
 * main thread; unsaid, every function is compiled on the main thread when it is first called.
 */
const ALL_CALLED = '//# allFunctionsCalledOnLoad\n'

/** Marks the scripts of a first visit: those of the page, of the screens that people come in at, and all that these import. */
export function markFirst(bundle: Bundle, screens: readonly string[]): void {
  const first = new Set([...pageScripts(bundle).values(), ...screenScripts(bundle, screens).values()])
  for (const script of first) script.code = ALL_CALLED + script.code
}

/** Has the scripts of a first visit compiled as they arrive. */
export const compiledEarly = (): Plugin => ({
  name: 'compiled-early',
  // The build itself writes at the head of scripts until then.
  generateBundle: { order: 'post', handler: (_, bundle) => markFirst(bundle, firstScreens) },
})
