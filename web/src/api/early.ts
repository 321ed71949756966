declare global {
  /** By address: what the page itself has asked for. */
  var asked: Map<string, Promise<Response>> | undefined
}

/**
 * Asks who it is, and if it is somebody for their gardens and the garden of the address, before there is any script of the
 * application. Its text becomes part of the page: nothing outside of it may be used in it.
 */
export function askEarly(addresses: { session: string; gardens: string; garden: string }): void {
  const asked = (globalThis.asked = new Map<string, Promise<Response>>())
  const ask = (address: string, answer = fetch(address)) => {
    asked.set(address, answer)
    // Whoever takes it is told; nobody may.
    answer.catch(() => {})
  }
  const askRest = ({ person }: { person: unknown }) => {
    if (!person) return
    ask(addresses.gardens)
    const id = /^\/g\/([^/]+)/.exec(location.pathname)?.[1]
    const on = new URLSearchParams(location.search).get('on')
    if (id) ask(addresses.garden.replace(':gardenId', id) + (on ? `?on=${on}` : ''))
  }
  // Whoever knows who it is finds the rest asked already.
  const whoItIs = fetch(addresses.session).then((answer) =>
    answer
      .clone()
      .json()
      .then(askRest, () => {})
      .then(() => answer),
  )
  ask(addresses.session, whoItIs)
}

/** @returns the answer to what the page has asked, once; undefined where it has not */
export function takeEarly(address: string): Promise<Response> | undefined {
  const answer = globalThis.asked?.get(address)
  globalThis.asked?.delete(address)
  return answer
}

/** What was asked and not taken is of before: nobody takes it any more, nor what is asked after it. */
export const forgetEarly = (): void => {
  globalThis.asked = undefined
}
