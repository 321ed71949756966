import { expect, it } from 'vitest'
import { fontLinks } from '../../fontsEarly.ts'

const built = [
  'assets/serif-latin-BqR.woff2',
  'assets/serif-latin-ext-C0x.woff2',
  'assets/serif-latin-BqR.woff',
]

it('asks for each font of the page by its built name, as a font is fetched', () => {
  expect(fontLinks(['index.html', 'assets/serif-latin-BqR.woff2'], ['serif-latin'])).toEqual([
    {
      tag: 'link',
      injectTo: 'head-prepend',
      attrs: {
        rel: 'preload',
        as: 'font',
        type: 'font/woff2',
        crossorigin: '',
        href: '/assets/serif-latin-BqR.woff2',
      },
    },
  ])
})

it('ends the build where a font is not there, or it is not clear which is meant', () => {
  expect(() => fontLinks(built, ['grotesque'])).toThrow('The build has 0 fonts named grotesque')
  expect(() => fontLinks(built, ['serif-latin'])).toThrow('The build has 2 fonts named serif-latin')
})
