import type { Plugin } from 'vite'

/**
 * Said at the head of a script: all of it is called while the page loads. A browser that understands compiles it then, beside the
 * main thread; unsaid, every function is compiled on the main thread when it is first called.
 */
const ALL_CALLED = '//# allFunctionsCalledOnLoad\n'

/** What of a built script is looked at, and written over. */
export interface BuiltScript {
  type: 'chunk'
  code: string
  isEntry: boolean
  facadeModuleId: string | null
  /** File names of scripts that it cannot run without. */
  imports: string[]
}

/**
 * Marks the scripts of a first visit: those of the page, of the screens that people come in at, and all that these import.
 *
 * @param screens ends of the paths of their sources
 * @throws Error where the build has none of that name
 */
export function markFirst(
  bundle: Record<string, BuiltScript | { type: 'asset' }>,
  screens: readonly string[],
): void {
  const scripts = Object.entries(bundle).flatMap(([name, of]) =>
    of.type === 'chunk' ? [[name, of] as const] : [],
  )
  const marked = new Set<string>()
  const mark = (name: string) => {
    const script = bundle[name]
    if (marked.has(name) || script?.type !== 'chunk') return
    marked.add(name)
    script.code = ALL_CALLED + script.code
    script.imports.forEach(mark)
  }
  for (const [name, script] of scripts) if (script.isEntry) mark(name)
  for (const screen of screens) {
    const found = scripts.find(([, script]) => script.facadeModuleId?.endsWith(screen))
    if (!found) throw new Error(`The build has no ${screen}`)
    mark(found[0])
  }
}

/** Has the scripts of a first visit compiled as they arrive. */
export const compiledEarly = (screens: readonly string[]): Plugin => ({
  name: 'compiled-early',
  // The build itself writes at the head of scripts until then.
  generateBundle: { order: 'post', handler: (_, bundle) => markFirst(bundle, screens) },
})
