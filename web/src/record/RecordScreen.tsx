export function Screen() {
  return null
}
