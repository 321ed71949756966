import * as react from 'react/jsx-dev-runtime'
import { told } from './told.ts'

export { Fragment } from 'react/jsx-dev-runtime'
export type { JSX } from 'react/jsx-dev-runtime'

export const jsxDEV = (type: never, props: never, ...rest: unknown[]): unknown =>
  (react as unknown as { jsxDEV: (...all: unknown[]) => unknown }).jsxDEV(type, told(props), ...rest)
