import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { library } from './library/index.ts'
import { called, nameFor, namesOf, namings } from './naming.ts'

const dahlia = { botanical: 'Dahlia × pinnata', common: 'garden dahlia' }
const [white, spotted] = [
  { botanical: 'Lamium album', common: 'dead-nettle' },
  { botanical: 'Lamium maculatum', common: 'dead-nettle' },
]
const kinds = [dahlia, white, spotted, { botanical: 'Salvia', common: 'sage' }]

describe('a kind is called', () => {
  it('by the name that comes first with somebody, the other beside it where it is wanted', () => {
    const texts = (naming: (typeof namings)[number]) => namesOf(dahlia, naming).map((n) => n?.text)
    expect(texts('common first')).toEqual(['garden dahlia', 'Dahlia × pinnata'])
    expect(texts('botanical first')).toEqual(['Dahlia × pinnata', 'garden dahlia'])
    expect(texts('common')).toEqual(['garden dahlia'])
    expect(texts('botanical')).toEqual(['Dahlia × pinnata'])
    expect(namesOf({ botanical: 'Fritillaria', common: 'Fritillaria' }, 'common first')).toHaveLength(1)
  })

  it('in a sentence by its common name, with a capital at its head, and told apart where two share one', () => {
    expect(called('Deadhead Dahlia × pinnata', kinds, 'common')).toBe('Deadhead garden dahlia')
    expect(called('Dahlia × pinnata: lift it. Dahlia × pinnata waits.', kinds, 'common first')).toBe(
      'Garden dahlia: lift it. Garden dahlia waits.',
    )
    expect(called('Cut back Lamium album in the Long Border', kinds, 'common')).toBe(
      'Cut back dead-nettle (Lamium album) in the Long Border',
    )
    expect(called('Cut back Lamium album', kinds, 'botanical first')).toBe('Cut back Lamium album')
  })

  it('whole: a genus within a longer name, or a word that begins alike, is left', () => {
    const both = [...kinds, { botanical: 'Salvia nemorosa', common: 'Balkan clary' }]
    expect(called('Cut Salvia nemorosa, not Salviastrum', both, 'common')).toBe(
      'Cut Balkan clary, not Salviastrum',
    )
  })

  it('so that no botanical name of the library is left of what goes by common names alone, and nothing else changes', () => {
    fc.assert(
      fc.property(fc.constantFrom(...library), fc.constantFrom('Divide ', 'Lift '), (taxon, does) => {
        const text = `${does}${taxon.botanical} in the Long Border`
        const said = called(text, [taxon], 'common')
        expect(said).toBe(`${does}${nameFor(taxon, 'common')} in the Long Border`)
        for (const naming of ['botanical', 'botanical first'] as const)
          expect(called(text, library, naming)).toBe(text)
      }),
    )
  })
})
