import { lazy, Suspense, type ComponentType, type ReactNode } from 'react'
import { Waiting } from './Answered.tsx'

/**
 * A part of a screen that is its own file for the browser to fetch when it is first shown. Only its own place waits for it.
 *
 * @param meanwhile what stands there until then
 */
export function later<Props extends object>(
  load: () => Promise<ComponentType<Props>>,
  meanwhile: (props: Props) => ReactNode = () => <Waiting />,
): ComponentType<Props> {
  const Part = lazy(async () => ({ default: await load() })) as ComponentType<Props>
  return function Later(props) {
    return (
      <Suspense fallback={meanwhile(props)}>
        <Part {...props} />
      </Suspense>
    )
  }
}

/** A part that uses the component library: it comes together with the library’s look, and stands in it. */
export const themed =
  <Props extends object>(load: () => Promise<ComponentType<Props>>) =>
  async (): Promise<ComponentType<Props>> => {
    const [Part, { Themed }] = await Promise.all([load(), import('./Themed.tsx')])
    return (props) => (
      <Themed>
        <Part {...props} />
      </Themed>
    )
  }
