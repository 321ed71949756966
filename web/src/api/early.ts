declare global {
  /** By address: what the page itself has asked for. */
  var asked: Map<string, Promise<Response>> | undefined
}

/** What is asked before there is any script of the application, and where a device keeps the garden last looked at. */
export interface FirstQuestions {
  session: string
  gardens: string
  garden: string
  lastGarden: string
}

/**
 * Asks who it is, their gardens and the garden they come in at, before there is any script of the application. A device on which a
 * garden was looked at before asks all at once: the answers wait for each other nowhere, and to nobody signed in they say nothing.
 * Its text becomes part of the page: nothing outside of it may be used in it.
 */
export function askEarly(addresses: FirstQuestions): void {
  const asked = (globalThis.asked = new Map<string, Promise<Response>>())
  const ask = (address: string, answer = fetch(address)) => {
    asked.set(address, answer)
    // Whoever takes it is told; nobody may.
    answer.catch(() => {})
  }
  const last = localStorage.getItem(addresses.lastGarden)
  const askRest = () => {
    ask(addresses.gardens)
    const id = /^\/g\/([^/]+)/.exec(location.pathname)?.[1] ?? (location.pathname === '/' ? last : null)
    const on = new URLSearchParams(location.search).get('on')
    if (id) ask(addresses.garden.replace(':gardenId', id) + (on ? `?on=${on}` : ''))
  }
  const whoItIs = fetch(addresses.session)
  if (last) {
    ask(addresses.session, whoItIs)
    askRest()
    return
  }
  // Whoever knows who it is finds the rest asked already.
  ask(
    addresses.session,
    whoItIs.then((answer) =>
      answer
        .clone()
        .json()
        .then(
          ({ person }: { person: unknown }) => person && askRest(),
          () => {},
        )
        .then(() => answer),
    ),
  )
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
