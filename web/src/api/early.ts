declare global {
  /** By address: what the page itself has asked for. */
  var asked: Map<string, Promise<Response>> | undefined
}

/** An answer that nobody has taken by then is old, milliseconds since the page was opened. */
const OLD_MS = 10_000

/**
 * Asks who it is, and if it is somebody for their gardens and the garden of the address, before there is any script of the
 * application. Its text becomes part of the page: nothing outside of it may be used in it.
 */
export function askEarly(addresses: { session: string; gardens: string; garden: string }): void {
  const asked = (globalThis.asked = new Map<string, Promise<Response>>())
  const ask = (address: string) => {
    const answer = fetch(address)
    asked.set(address, answer)
    // Whoever takes it is told; nobody may.
    answer.catch(() => {})
    return answer
  }
  ask(addresses.session)
    .then((answer) => answer.clone().json())
    .then(({ person }) => {
      if (!person) return
      ask(addresses.gardens)
      const id = /^\/g\/([^/]+)/.exec(location.pathname)?.[1]
      const on = new URLSearchParams(location.search).get('on')
      if (id) ask(addresses.garden.replace(':gardenId', id) + (on ? `?on=${on}` : ''))
    })
    .catch(() => {})
}

/** @returns the answer to what the page has asked, once; undefined where it has not, or long ago */
export function takeEarly(address: string): Promise<Response> | undefined {
  const answer = globalThis.asked?.get(address)
  globalThis.asked?.delete(address)
  return performance.now() < OLD_MS ? answer : undefined
}

/** Somebody else is here now: what was asked as the one before is nobody's. */
export const forgetEarly = (): void => globalThis.asked?.clear()
