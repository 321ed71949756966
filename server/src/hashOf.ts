import { createHash } from 'node:crypto'

/** Tells a value from any other: the SHA-256 of it as JSON, in hexadecimal digits. */
export const hashOf = (value: unknown): string =>
  createHash('sha256').update(JSON.stringify(value)).digest('hex')
