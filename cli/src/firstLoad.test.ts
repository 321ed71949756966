import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { firstFiles, travelling, type Manifest } from './firstLoad.ts'

const manifest: Manifest = {
  'index.html': { file: 'index.js', css: ['index.css'], imports: ['_base.js'], dynamicImports: ['a.tsx'] },
  '_base.js': { file: 'base.js', imports: ['_deep.js'] },
  '_deep.js': { file: 'deep.js', imports: ['_base.js'] },
  'a.tsx': { file: 'a.js', css: ['a.css'], imports: ['_deep.js', 'index.html'], dynamicImports: ['b.tsx'] },
  'b.tsx': { file: 'b.js', imports: ['_base.js'] },
}

describe('what is fetched before a screen is there', () => {
  it('is all that it imports, each file once, and nothing that is only asked for later', () => {
    expect(firstFiles(manifest, ['index.html']).sort()).toEqual([
      'base.js',
      'deep.js',
      'index.css',
      'index.js',
    ])
    expect(firstFiles(manifest, ['index.html', 'a.tsx']).sort()).toEqual([
      'a.css',
      'a.js',
      'base.js',
      'deep.js',
      'index.css',
      'index.js',
    ])
  })

  it('is refused of a screen that the build does not have: a budget for nothing would always be kept', () => {
    expect(() => firstFiles(manifest, ['index.html', 'c.tsx'])).toThrow('The build has no c.tsx')
  })

  it('is counted as it travels: what repeats itself weighs little, what does not weighs what it is', () => {
    const site = mkdtempSync(join(tmpdir(), 'border-first-'))
    const dice = Buffer.from(Array.from({ length: 10_000 }, () => Math.floor(Math.random() * 256)))
    writeFileSync(join(site, 'same.js'), 'x'.repeat(100_000))
    writeFileSync(join(site, 'dice.js'), dice)
    expect(travelling(site, ['same.js'])).toBeLessThan(300)
    expect(travelling(site, ['dice.js'])).toBeGreaterThan(10_000)
    expect(travelling(site, ['same.js', 'dice.js'])).toBe(
      travelling(site, ['same.js']) + travelling(site, ['dice.js']),
    )
  })
})
