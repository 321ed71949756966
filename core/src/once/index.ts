/**
 * Works something out once for each object that is asked about, and forgets it with the object.
 *
 * @param of its answer rests on the object alone, which never changes
 */
export function onceFor<From extends object, To>(of: (from: From) => To): (from: From) => To {
  const known = new WeakMap<From, { of: To }>()
  return (from) => {
    const found = known.get(from) ?? { of: of(from) }
    known.set(from, found)
    return found.of
  }
}
