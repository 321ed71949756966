import { createHash, randomBytes } from 'node:crypto'

/** A secret that goes into an address, nobody's guess, with the hash that is kept of it. */
export function newSecret(): { token: string; hash: string } {
  const token = randomBytes(24).toString('base64url')
  return { token, hash: hashOf(token) }
}

/** What is kept of a secret. */
export const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex')
