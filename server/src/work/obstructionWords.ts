const happened: Readonly<Record<string, (value: number) => string>> = {
  limbed: (v) => `limbed up to ${v} m`,
  thinned: (v) => `thinned by ${Math.round(v * 100)}\u00a0%`,
  lowered: (v) => `lowered to ${v} m`,
  measured: (v) => `measured at ${v} m`,
}

/** What happened to something that casts shade. @param value metres, of one that was thinned the share */
export const happenedWords = (action: string, value: unknown): string =>
  happened[action]?.(Number(value)) ?? action
