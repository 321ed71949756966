import { describe, expect, it } from 'vitest'
import { otherNames } from './townNames.ts'
import { townsNamed } from './towns.ts'

describe('a town by any of its names', () => {
  it('is one and the same, first of those found in its country', async () => {
    const strayed: string[] = []
    for (const [country, ...names] of otherNames) {
      const found = await Promise.all(
        names.map(async (name) => (await townsNamed({ name })).find((t) => t.country === country)),
      )
      const at = found.map((t) => t && [t.country, t.latitude, t.longitude].join(' '))
      if (new Set(at).size !== 1 || at[0] === undefined)
        strayed.push(`${names.join('/')}: ${found.map((t) => `${t?.name} ${t?.country}`).join(', ')}`)
    }
    expect(strayed).toEqual([])
  })

  it('is the nearest to coordinates, in whatever form they are, with the time there', async () => {
    // A garden outside Worcester, Massachusetts.
    const [at] = await townsNamed({ name: '42.27 N 71.8 W' })
    expect(at).toMatchObject({
      country: 'US',
      latitude: 42.27,
      longitude: -71.8,
      timeZone: 'America/New_York',
    })
    expect(at!.name).toMatch(/^42.27° N, 71.8° W, near Worcester/)
    expect(await townsNamed({ name: `42°16'12"N, 71°48'W` })).toEqual([at])
    const [south] = await townsNamed({ name: '-34.05, 151.1' })
    expect(south).toMatchObject({ country: 'AU', timeZone: 'Australia/Sydney' })
    expect((await townsNamed({ name: '16.8 S 179.99 W' }))[0]!.country).toBe('FJ')
    expect(await townsNamed({ name: '95 N 10 E' })).toEqual([])
  })

  it('is shown once where two of its names begin alike', async () => {
    const found = await townsNamed({ name: 'Lyon' })
    const at = found.map((t) => `${t.latitude} ${t.longitude}`)
    expect(new Set(at).size).toBe(at.length)
  })
})
