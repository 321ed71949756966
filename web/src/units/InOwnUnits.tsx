import type { Preferences } from '@border/contract'
import { Fragment } from 'react'
import { setOwnUnits } from './ownUnits.ts'

/** What is inside is written as somebody wants it, and made anew where they want it otherwise. */
export function InOwnUnits({ of, children }: { of: Preferences; children: React.ReactNode }) {
  setOwnUnits(of)
  const { names: _, ...units } = of
  return <Fragment key={JSON.stringify(units)}>{children}</Fragment>
}
