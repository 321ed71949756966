import * as contract from '@border/contract'
import { describe, expect, it } from 'vitest'
import { addressesOnly } from '../../addressesOnly.ts'

/** The contract as a browser is given it, run as what it is. */
async function given(): Promise<Record<string, unknown>> {
  const { load } = addressesOnly() as unknown as { load: (this: object, id: string) => Promise<string> }
  const code = await load.call({ addWatchFile: () => {} }, '\0contract')
  return (await import(
    /* @vite-ignore */ `data:text/javascript,${encodeURIComponent(code.replace(/^export \* .*\n/, ''))}`
  )) as Record<string, unknown>
}

describe('what a browser is given of the contract', () => {
  it('is every endpoint at its own address, resting on what it rests on, without a single schema', async () => {
    const browser = await given()
    const areas = Object.entries(contract).filter(([name]) => name.endsWith('Endpoints'))
    expect(areas.length).toBeGreaterThan(12)
    expect(Object.keys(browser).sort()).toEqual(areas.map(([name]) => name).sort())
    for (const [area, endpoints] of areas)
      for (const [name, e] of Object.entries(endpoints as Record<string, contract.Endpoint>)) {
        const told = (browser[area] as Record<string, Record<string, unknown>>)[name]!
        expect([area, name, told]).toEqual([
          area,
          name,
          {
            method: e.method,
            path: e.path,
            ...(e.restsOn && { restsOn: [...e.restsOn] }),
            ...(e.writes && { writes: e.writes }),
            ...(e.sends && { sends: e.sends }),
            ...(e.takesFile && { takesFile: e.takesFile }),
            // A body is sent where one is taken, and only there.
            ...(e.body && { body: true }),
          },
        ])
      }
  })
})
