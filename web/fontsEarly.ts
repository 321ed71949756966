import type { HtmlTagDescriptor, Plugin } from 'vite'

/**
 * Asks for fonts at the head of the page.
 *
 * @param files of the build
 * @param fonts beginnings of their names
 * @throws Error where the build has none, or several, of that name
 */
export const fontLinks = (files: readonly string[], fonts: readonly string[]): HtmlTagDescriptor[] =>
  fonts.map((font) => {
    const found = files.filter((file) => file.startsWith(`assets/${font}-`) && file.endsWith('.woff2'))
    if (found.length !== 1) throw new Error(`The build has ${found.length} fonts named ${font}`)
    return {
      tag: 'link',
      injectTo: 'head-prepend',
      attrs: { rel: 'preload', as: 'font', type: 'font/woff2', crossorigin: '', href: `/${found[0]}` },
    }
  })

/**
 * Has the fonts that every screen is written in on their way before anything is laid out: unasked, a browser fetches a font when the
 * first text in it is laid out, and lays all of it out again when it is there.
 */
export const fontsEarly = (fonts: readonly string[]): Plugin => ({
  name: 'fonts-early',
  apply: 'build',
  transformIndexHtml: {
    order: 'post',
    handler: (_, { bundle }) => fontLinks(Object.keys(bundle ?? {}), fonts),
  },
})
