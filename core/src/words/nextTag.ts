/** The tag after the highest number in use: N-074 gives N-075. */
export function nextTag(tags: readonly string[]): string {
  const numbered = tags.flatMap((tag) => {
    const m = /^(.*?)(\d+)$/.exec(tag)
    return m ? [{ prefix: m[1]!, n: Number(m[2]), digits: m[2]!.length }] : []
  })
  const last = numbered.sort((a, b) => a.n - b.n).at(-1)
  return last ? `${last.prefix}${String(last.n + 1).padStart(last.digits, '0')}` : '1'
}

/** So many tags after the highest in use. */
export function nextTags(tags: readonly string[], count: number): string[] {
  const found: string[] = []
  while (found.length < count) found.push(nextTag([...tags, ...found]))
  return found
}
