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

/** As `onceFor`, of an object and what is asked of it: of each once. */
export function onceForEach<From extends object, Asked extends readonly (string | number)[], To>(
  of: (from: From, ...asked: Asked) => To,
): (from: From, ...asked: Asked) => To {
  const knownOf = onceFor((_: From) => new Map<string, To>())
  return (from, ...asked) => {
    const known = knownOf(from)
    const key = asked.join(' ')
    const found = known.get(key) ?? of(from, ...asked)
    known.set(key, found)
    return found
  }
}
