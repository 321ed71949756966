/** How the wind finds a place. */
export const windExposures = ['sheltered', 'open', 'exposed'] as const
export type WindExposure = (typeof windExposures)[number]
