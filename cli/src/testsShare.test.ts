import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { afterEach, beforeEach, expect, it } from 'vitest'
import { isTest, testsShare } from './testsShare.ts'

let root: string
beforeEach(() => {
  root = mkdtempSync(join(tmpdir(), 'share-'))
})
afterEach(() => rmSync(root, { recursive: true }))

const write = (path: string, lines: number) => {
  mkdirSync(dirname(join(root, path)), { recursive: true })
  writeFileSync(join(root, path), 'x\n'.repeat(lines))
}

it('is what tests are of all lines, wherever they lie', () => {
  write('core/src/a.ts', 60)
  write('core/src/a.test.ts', 10)
  write('core/src/test/made.ts', 5)
  write('web/src/B.test.tsx', 15)
  write('e2e/flow.spec.ts', 10)
  expect(testsShare(root)).toBeCloseTo(40 / 100, 9)
})

it('counts neither what is fetched or built, nor what is not TypeScript', () => {
  write('src/a.ts', 30)
  write('src/a.test.ts', 10)
  write('node_modules/p/index.ts', 500)
  write('server/dist/main.ts', 500)
  write('.border/x.ts', 500)
  write('web/look.css', 500)
  expect(testsShare(root)).toBeCloseTo(0.25, 9)
})

it('is asked of a project, not of an empty folder', () => {
  expect(() => testsShare(root)).toThrow('no TypeScript')
})

it('takes no file for a test that only speaks of one', () => {
  for (const path of ['core/src/testimony.ts', 'core/src/latest.ts', 'contest/a.ts', 'core/src/attest/b.ts'])
    expect([path, isTest(path)]).toEqual([path, false])
})
