import { hashOfSources } from './hashOfSources.ts'

/** Put in at build; absent when the server runs from source. */
declare const __CODE_VERSION__: string | undefined

/** What another version of the code worked out is not used. */
export const codeVersion: string =
  typeof __CODE_VERSION__ === 'string' ? __CODE_VERSION__ : hashOfSources(new URL('../../', import.meta.url))
