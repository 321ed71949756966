import { ensureBuilt } from '../cli/src/build.ts'
import { DEMO_TEMPLATE, makeDemoTemplate } from '../cli/src/demoTemplate.ts'

/** Makes the demo that the flows copy, gone again after the last flow; the check has made one already. */
export default async function demoTemplate(): Promise<(() => Promise<void>) | undefined> {
  ensureBuilt()
  if (process.env[DEMO_TEMPLATE]) return undefined
  const { name, drop } = await makeDemoTemplate()
  process.env[DEMO_TEMPLATE] = name
  return drop
}
