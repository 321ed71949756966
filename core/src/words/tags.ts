const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' })

/** Tags in the order people count: 2 before 10, whatever stands before the number. */
export const compareTags = (a: string, b: string): number =>
  collator.compare(a, b) || (a < b ? -1 : a > b ? 1 : 0)
