import * as react from 'react/jsx-runtime'
import { told } from './told.ts'

// What the compiler calls for every element, in place of React's own, which it hands on to.

export { Fragment } from 'react/jsx-runtime'
export type { JSX } from 'react/jsx-runtime'

export const jsx: typeof react.jsx = (type, props, key) => react.jsx(type, told(props as never), key)
export const jsxs: typeof react.jsxs = (type, props, key) => react.jsxs(type, told(props as never), key)
