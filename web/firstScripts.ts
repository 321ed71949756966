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

export type Bundle = Record<string, BuiltScript | { type: 'asset' }>

/** Where people come in: the frame of a garden, and its light. Ends of the paths of their sources. */
export const firstScreens = ['/src/frame/GardenFrame.tsx', '/src/light/LightScreen.tsx']

/**
 * Scripts with all that they import, each once.
 *
 * @returns file names, importers before what they import
 */
function withImports(bundle: Bundle, names: readonly string[]): Map<string, BuiltScript> {
  const found = new Map<string, BuiltScript>()
  const take = (name: string) => {
    const script = bundle[name]
    if (found.has(name) || script?.type !== 'chunk') return
    found.set(name, script)
    script.imports.forEach(take)
  }
  names.forEach(take)
  return found
}

/** The scripts that the page itself begins with. */
export const pageScripts = (bundle: Bundle): Map<string, BuiltScript> =>
  withImports(
    bundle,
    Object.keys(bundle).filter((name) => {
      const script = bundle[name]!
      return script.type === 'chunk' && script.isEntry
    }),
  )

/**
 * The scripts of screens.
 *
 * @param screens ends of the paths of their sources
 * @throws Error where the build has none of that name
 */
export const screenScripts = (bundle: Bundle, screens: readonly string[]): Map<string, BuiltScript> =>
  withImports(
    bundle,
    screens.map((screen) => {
      const found = Object.entries(bundle).find(
        ([, script]) => script.type === 'chunk' && script.facadeModuleId?.endsWith(screen),
      )
      if (!found) throw new Error(`The build has no ${screen}`)
      return found[0]
    }),
  )
