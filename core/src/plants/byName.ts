/** What fits a botanical name best of a table by beginnings of names: the longest counts. */
export function byName<To>(table: Readonly<Record<string, To>>, botanical: string): To | undefined {
  const found = Object.keys(table).filter((name) => botanical.startsWith(name))
  return found.length === 0 ? undefined : table[found.reduce((a, b) => (b.length > a.length ? b : a))]
}

/** Whether a kind is one of these, by the beginnings of names. */
export const isNamed = (names: readonly string[], { botanical }: { botanical: string }): boolean =>
  names.some((name) => botanical.startsWith(name))
