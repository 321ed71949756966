/** `head` decides and changes, `crew` records work, `keeper` reads. */
export const roles = ['head', 'crew', 'keeper'] as const
export type Role = (typeof roles)[number]
export const roleWords: Record<Role, string> = { head: 'head gardener', crew: 'crew', keeper: 'keeper' }
