import { inOwnUnits, writesOtherwise } from './ownUnits.ts'

type Props = Record<string, unknown>

/** Properties by which something is told beside its children. */
const TOLD = [
  'aria-label',
  'title',
  'placeholder',
  'alt',
  'label',
  'description',
  'message',
  'extra',
  'suffix',
] as const

/**
 * Whatever is put on the screen, in the units and dates of whoever looks at it: everything is said in one written form, and each element
 * has its text rewritten as it is made. A person's own words, marked with `translate="no"`, stay as they were written.
 */
export function told(props: Props): Props {
  if (!writesOtherwise() || props.translate === 'no') return props
  const others: Props = {}
  for (const name of TOLD) {
    const text = props[name]
    if (typeof text === 'string') others[name] = inOwnUnits(text)
  }
  const { children } = props
  if (typeof children === 'string') others.children = inOwnUnits(children)
  else if (Array.isArray(children) && children.some(isText)) others.children = joined(children)
  return { ...props, ...others }
}

const isText = (child: unknown): child is string | number =>
  typeof child === 'string' || typeof child === 'number'

/** Texts that stand beside each other are one: `{depth} m` is a number and its unit. Each child keeps its place. */
function joined(children: readonly unknown[]): unknown[] {
  const all = [...children]
  for (let i = 0; i < all.length; i++) {
    if (!isText(all[i])) continue
    let end = i + 1
    while (end < all.length && isText(all[end])) end++
    all[i] = inOwnUnits(all.slice(i, end).join(''))
    all.fill('', i + 1, end)
    i = end - 1
  }
  return all
}
