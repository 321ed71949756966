import type { gardenEndpoints, sessionEndpoints } from '@border/contract'
import { fileURLToPath } from 'node:url'
import { runnerImport, type Plugin } from 'vite'
import { askEarly, type FirstQuestions } from './src/api/early.ts'
import { LAST_GARDEN } from './src/frame/lastGarden.ts'

const contract = fileURLToPath(new URL('../contract/src/index.ts', import.meta.url))

/**
 * Puts the first questions into the page itself, so that their answers are there when the application's scripts are. The addresses
 * are the contract's.
 */
export const askedEarly = (): Plugin => ({
  name: 'asked-early',
  async transformIndexHtml() {
    const { module } = await runnerImport<{
      sessionEndpoints: typeof sessionEndpoints
      gardenEndpoints: typeof gardenEndpoints
    }>(contract)
    const addresses: FirstQuestions = {
      session: `/api${module.sessionEndpoints.read.path}`,
      gardens: `/api${module.gardenEndpoints.list.path}`,
      garden: `/api${module.gardenEndpoints.read.path}`,
      lastGarden: LAST_GARDEN,
    }
    return [
      {
        tag: 'script',
        injectTo: 'head-prepend',
        children: `(${askEarly})(${JSON.stringify(addresses)})`,
      },
    ]
  },
})
