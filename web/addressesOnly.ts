import { fileURLToPath } from 'node:url'
import { runnerImport, type Plugin } from 'vite'

const contract = fileURLToPath(new URL('../contract/src/', import.meta.url))

/** An endpoint as a browser needs it: where it is, what it rests on and whether it takes a file; of its schemas only whether it takes a body. */
const addressOnly = ({
  access: _access,
  query: _query,
  answer: _answer,
  sees: _sees,
  body,
  ...rest
}: Record<string, unknown>) => ({
  ...rest,
  ...(body !== undefined && { body: true }),
})

/**
 * Gives a browser the contract without its schemas, which only the server and the tests read answers by: they and the package
 * they are written in would be some 40 kB of what travels before the first screen. Made from the contract itself at build.
 */
export const addressesOnly = (): Plugin => ({
  name: 'addresses-only',
  enforce: 'pre',
  resolveId: (source) => (source === '@border/contract' ? '\0contract' : undefined),
  async load(id) {
    if (id !== '\0contract') return
    const { module, dependencies } = await runnerImport<Record<string, unknown>>(`${contract}index.ts`)
    for (const file of dependencies) this.addWatchFile(file)
    const areas = Object.entries(module).filter(([name]) => name.endsWith('Endpoints'))
    return [
      `export * from ${JSON.stringify(`${contract}schemaless.ts`)}`,
      ...areas.map(([name, endpoints]) => {
        const given = Object.entries(endpoints as Record<string, Record<string, unknown>>)
        return `export const ${name} = ${JSON.stringify(Object.fromEntries(given.map(([n, e]) => [n, addressOnly(e)])))}`
      }),
    ].join('\n')
  },
})
