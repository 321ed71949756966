// @vitest-environment happy-dom
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fetchEarly, firstScripts, type BuiltScript } from '../../firstScripts.ts'

const script = (imports: string[], more: Partial<BuiltScript> = {}): BuiltScript => ({
  type: 'chunk',
  code: 'run()',
  isEntry: false,
  facadeModuleId: null,
  imports,
  ...more,
})

const built = () => ({
  'page.js': script(['view.js'], { isEntry: true }),
  'view.js': script(['page.js', 'words.js']),
  'words.js': script([]),
  'light.js': script(['view.js', 'plan.js'], { facadeModuleId: '/web/src/comeIn.ts' }),
  'plan.js': script([]),
  'season.js': script(['plan.js'], { facadeModuleId: '/web/src/season/SeasonScreen.tsx' }),
  'look.css': { type: 'asset' as const },
})

describe('the scripts of a first visit', () => {
  it('are found once each, with all that they import, in circles too; those of other screens are left alone', () => {
    const { page, screens } = firstScripts(built(), ['/src/comeIn.ts'])
    expect([...page.keys()].sort()).toEqual(['page.js', 'view.js', 'words.js'])
    expect([...screens.keys()].sort()).toEqual(['light.js', 'plan.js'])
  })

  it('are not guessed at: a screen that was moved ends the build', () => {
    expect(() => firstScripts(built(), ['/src/light/Light.tsx'])).toThrow(
      'The build has no /src/light/Light.tsx',
    )
  })
})

describe('what a garden is shown by', () => {
  // Told, not fetched: there is nobody who would answer.
  const told = vi.spyOn(document.head, 'append').mockImplementation(() => {})
  const links = () =>
    told.mock.calls.map(([link]) => {
      const { rel, attributes } = link as HTMLLinkElement
      return [rel, attributes.getNamedItem('href')!.value]
    })
  /** As its text stands in the page: nothing around it is there. */
  const inThePage = () =>
    // oxlint-disable-next-line no-eval -- what is tried is text
    (0, eval)(`(${fetchEarly})(["assets/garden.js","assets/garden.css"],"last")`)
  const asked = [
    ['modulepreload', '/assets/garden.js'],
    ['stylesheet', '/assets/garden.css'],
  ]
  afterEach(() => {
    told.mockClear()
    localStorage.clear()
  })

  it('is asked for at a garden’s address, and at the start where a garden was looked at before', () => {
    history.replaceState(null, '', '/g/17/season')
    inThePage()
    expect(links()).toEqual(asked)
    told.mockClear()
    history.replaceState(null, '', '/')
    inThePage()
    expect(links()).toEqual([])
    localStorage.setItem('last', '17')
    inThePage()
    expect(links()).toEqual(asked)
  })
})
