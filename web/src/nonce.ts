/** The nonce under which the content policy lets this page add styles. */
export const nonce = document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce

/**
 * Gives the nonce to every style element made from now on: some helpers of the component library make theirs without
 * asking for it, and the policy would refuse them.
 */
export function giveStylesTheNonce(): void {
  if (!nonce) return
  const make = document.createElement.bind(document)
  document.createElement = ((name: string, options?: ElementCreationOptions) => {
    const element = make(name, options)
    if (element instanceof HTMLStyleElement) element.nonce = nonce
    return element
  }) as typeof document.createElement
}
