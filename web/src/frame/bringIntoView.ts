/** On a phone what was chosen lies below the list it was chosen from: goes there. */
export function bringIntoView(id: string): void {
  if (!matchMedia('(max-width: 760px)').matches) return
  requestAnimationFrame(() => document.getElementById(id)?.scrollIntoView({ block: 'start' }))
}
