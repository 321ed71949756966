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

  it('is shown once where two of its names begin alike', async () => {
    const found = await townsNamed({ name: 'Lyon' })
    const at = found.map((t) => `${t.latitude} ${t.longitude}`)
    expect(new Set(at).size).toBe(at.length)
  })
})
