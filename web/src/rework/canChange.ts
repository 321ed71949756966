import { createContext, use } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'

/** Whether the scheme that is shown is being carried out: what is worked by does not change. */
export const CarriedOut = createContext(false)

/** Whether whoever looks may change the scheme that is shown. */
export function useCanChange(): boolean {
  const { isHead } = useGardenContext()
  const isCarriedOut = use(CarriedOut)
  return isHead && !isCarriedOut
}
