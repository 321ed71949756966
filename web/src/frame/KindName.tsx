import { called, namesOf, type Names } from '@border/core'
import { useCallback } from 'react'
import { useGardenContext, useNaming } from './gardenContext.ts'

/**
 * A kind as whoever looks on calls it: the one name first, and the other beside it where they want both.
 *
 * @param of by its common name too, where it may be none of the garden's
 */
export function KindName({ of, isShort }: { of: { botanical: string; common?: string }; isShort?: boolean }) {
  const naming = useNaming()
  const kinds = useKinds()
  const common = of.common ?? kinds.get(of.botanical)?.common ?? of.botanical
  const [first, beside] = namesOf({ botanical: of.botanical, common }, naming)
  return (
    <>
      <span className={first.isBotanical ? 'taxon' : 'kind-name'}>{first.text}</span>
      {beside && !isShort && (
        <>
          {' '}
          <small className={beside.isBotanical ? 'taxon' : undefined}>{beside.text}</small>
        </>
      )}
    </>
  )
}

const known = new WeakMap<object, ReadonlyMap<string, Names>>()

/** The garden's kinds by their botanical names; made once for all that ask. */
function useKinds(): ReadonlyMap<string, Names> {
  const { plantings } = useGardenContext().view
  const kinds = known.get(plantings) ?? new Map(plantings.map(({ taxon }) => [taxon.botanical, taxon]))
  known.set(plantings, kinds)
  return kinds
}

/** Calls the kinds of a sentence as whoever reads it does: sentences are made with their botanical names. */
export function useCalled(): (text: string) => string {
  const naming = useNaming()
  const kinds = useKinds()
  return useCallback((text) => called(text, [...kinds.values()], naming), [kinds, naming])
}
