/** The part of the plan that an address asks to put right. */
const PART = 'part'

export const partIn = (search: string): string | undefined =>
  new URLSearchParams(search).get(PART) ?? undefined

/** An address's search with a part to put right. */
export function withPart(search: string, id: string | undefined): string {
  const params = new URLSearchParams(search)
  if (id === undefined) params.delete(PART)
  else params.set(PART, id)
  return params.toString()
}
