import type { gardenEndpoints, sessionEndpoints } from '@border/contract'
import { fileURLToPath } from 'node:url'
import { runnerImport, type Plugin } from 'vite'
import { firstScreens, pageScripts, screenScripts, type Bundle } from './firstScripts.ts'
import { pageText } from './src/api/early.ts'

const contract = fileURLToPath(new URL('../contract/src/index.ts', import.meta.url))

/** Addresses of what the screens that people come in at need and the page does not, scripts and styles. */
export function onTheirWay(bundle: Bundle): string[] {
  const page = pageScripts(bundle)
  const screens = [...screenScripts(bundle, firstScreens)].filter(([name]) => !page.has(name))
  const styles = new Set(screens.flatMap(([, script]) => [...(script.viteMetadata?.importedCss ?? [])]))
  return [...screens.map(([name]) => name), ...styles].map((name) => `/${name}`)
}

/**
 * Puts the first questions into the page itself, and the way to the first screen's scripts, so that both are there when the
 * application's own are. The addresses are the contract's.
 */
export const askedEarly = (): Plugin => ({
  name: 'asked-early',
  transformIndexHtml: {
    order: 'post',
    async handler(_, { bundle }) {
      const { module } = await runnerImport<{
        sessionEndpoints: typeof sessionEndpoints
        gardenEndpoints: typeof gardenEndpoints
      }>(contract)
      const addresses = {
        session: `/api${module.sessionEndpoints.read.path}`,
        gardens: `/api${module.gardenEndpoints.list.path}`,
        garden: `/api${module.gardenEndpoints.read.path}`,
      }
      const files = bundle ? onTheirWay(bundle) : []
      return [{ tag: 'script', injectTo: 'head-prepend', children: pageText(addresses, files) }]
    },
  },
})
