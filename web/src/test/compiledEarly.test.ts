import { describe, expect, it } from 'vitest'
import { markFirst, type BuiltScript } from '../../compiledEarly.ts'

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
  'light.js': script(['view.js', 'plan.js'], { facadeModuleId: '/web/src/light/LightScreen.tsx' }),
  'plan.js': script([]),
  'season.js': script(['plan.js'], { facadeModuleId: '/web/src/season/SeasonScreen.tsx' }),
  'look.css': { type: 'asset' as const },
})

describe('the scripts of a first visit', () => {
  it('are marked once each, with all that they import, in circles too; those of other screens are left alone', () => {
    const bundle = built()
    markFirst(bundle, ['/src/light/LightScreen.tsx'])
    const codeOf = (name: keyof typeof bundle) => (bundle[name] as BuiltScript).code.split('\n')
    for (const first of ['page.js', 'view.js', 'words.js', 'light.js', 'plan.js'] as const)
      expect(codeOf(first)).toEqual(['//# allFunctionsCalledOnLoad', 'run()'])
    expect(codeOf('season.js')).toEqual(['run()'])
  })

  it('are not guessed at: a screen that was moved ends the build', () => {
    expect(() => markFirst(built(), ['/src/light/Light.tsx'])).toThrow(
      'The build has no /src/light/Light.tsx',
    )
  })
})
