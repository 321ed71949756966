import type { Plugin } from 'vite'
import { LAST_GARDEN } from './src/frame/lastGarden.ts'

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
  viteMetadata?: { importedCss: Set<string> }
}
export type Built = Record<string, BuiltScript | { type: 'asset' }>

/**
 * The scripts of a first visit: those of the page, and those that are the screens' that people come in at, each with all that it
 * imports.
 *
 * @param screens ends of the paths of their sources
 * @throws Error where the build has none of that name
 */
export function firstScripts(
  bundle: Built,
  screens: readonly string[],
): { page: Map<string, BuiltScript>; screens: Map<string, BuiltScript> } {
  const scripts = Object.entries(bundle).flatMap(([name, of]) =>
    of.type === 'chunk' ? [[name, of] as const] : [],
  )
  const page = new Map<string, BuiltScript>()
  const ofScreens = new Map<string, BuiltScript>()
  const take = (name: string, into: Map<string, BuiltScript>) => {
    const script = bundle[name]
    if (page.has(name) || into.has(name) || script?.type !== 'chunk') return
    into.set(name, script)
    for (const other of script.imports) take(other, into)
  }
  for (const [name, script] of scripts) if (script.isEntry) take(name, page)
  for (const screen of screens) {
    const found = scripts.find(([, script]) => script.facadeModuleId?.endsWith(screen))
    if (!found) throw new Error(`The build has no ${screen}`)
    take(found[0], ofScreens)
  }
  return { page, screens: ofScreens }
}

/**
 * Has what a garden is shown by on its way while the page's own scripts still are. Its text becomes part of the page: nothing
 * outside of it may be used in it.
 */
export function fetchEarly(files: readonly string[], lastGarden: string): void {
  const { pathname } = location
  if (!pathname.startsWith('/g/') && !(pathname === '/' && localStorage.getItem(lastGarden))) return
  for (const file of files) {
    const link = document.createElement('link')
    link.rel = file.endsWith('.css') ? 'stylesheet' : 'modulepreload'
    link.href = `/${file}`
    document.head.append(link)
  }
}

/** Has the scripts of a first visit compiled as they arrive, and those of a garden's first screen fetched beside the page's. */
export const scriptsEarly = (screens: readonly string[]): Plugin => ({
  name: 'scripts-early',
  apply: 'build',
  // The build itself writes at the head of scripts until then.
  generateBundle: {
    order: 'post',
    handler(_, bundle) {
      const first = firstScripts(bundle as Built, screens)
      for (const script of [...first.page.values(), ...first.screens.values()])
        script.code = ALL_CALLED + script.code
    },
  },
  transformIndexHtml: {
    order: 'post',
    handler(_, { bundle }) {
      const scripts = [...firstScripts(bundle as Built, screens).screens]
      const files = scripts.flatMap(([name, { viteMetadata }]) => [
        name,
        ...(viteMetadata?.importedCss ?? []),
      ])
      const given = [[...new Set(files)], LAST_GARDEN].map((v) => JSON.stringify(v))
      return [{ tag: 'script', injectTo: 'head', children: `(${fetchEarly})(${given.join(',')})` }]
    },
  },
})
