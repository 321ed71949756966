import 'fake-indexeddb/auto'
import { afterEach } from 'vitest'

/** What a browser has and the tests' does not. Files of components say `@vitest-environment jsdom`. */
if (typeof window !== 'undefined') {
  const { cleanup, configure } = await import('@testing-library/react')
  // A machine with more to do is no reason to fail.
  configure({ asyncUtilTimeout: 15_000 })
  afterEach(cleanup)
  const { writable, configurable } = { writable: true, configurable: true }
  const media = (query: string) => ({
    matches: false,
    media: query,
    addEventListener: () => {},
    removeEventListener: () => {},
    addListener: () => {},
    removeListener: () => {},
  })
  Object.defineProperty(window, 'matchMedia', { writable, configurable, value: media })
  Object.defineProperty(window, 'ResizeObserver', {
    writable,
    configurable,
    value: class {
      constructor(private readonly tell: ResizeObserverCallback) {}
      observe = (element: Element) =>
        this.tell(
          [{ target: element, contentRect: new DOMRect(0, 0, 900, 600) } as unknown as ResizeObserverEntry],
          this,
        )
      unobserve = () => {}
      disconnect = () => {}
    },
  })
  /** Nothing is computed by it: what waits for light goes on waiting. */
  Object.defineProperty(window, 'Worker', {
    writable,
    configurable,
    value: class extends EventTarget {
      postMessage = () => {}
      terminate = () => {}
    },
  })
  Object.defineProperty(navigator, 'locks', {
    configurable,
    value: { request: (_name: string, _options: unknown, run: (lock: object) => unknown) => run({}) },
  })
  Element.prototype.scrollIntoView = () => {}
}
