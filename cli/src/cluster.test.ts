import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { spawn } from 'node:child_process'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import { isServing } from './cluster.ts'

const home = mkdtempSync(join(tmpdir(), 'border-cluster-'))
const data = (name: string, pid: number | undefined) => {
  const folder = join(home, name)
  mkdirSync(folder)
  if (pid !== undefined) writeFileSync(join(folder, 'postmaster.pid'), `${pid}\n${folder}\n0\n54329\n`)
  return folder
}
const mine = data('mine', undefined)
const server = spawn(process.execPath, ['-e', 'setTimeout(() => {}, 60_000)', '--', '-D', mine])
writeFileSync(join(mine, 'postmaster.pid'), `${server.pid}\n`)
afterAll(() => {
  server.kill()
  rmSync(home, { recursive: true })
})

it('takes a server for its own only where it was begun with the folder of its data', () => {
  const of = {
    'its own': mine,
    // As after a crash of the machine, when the number was given out anew.
    'of another cluster': data('another', server.pid),
    ended: data('ended', 2 ** 22 + 1),
    'never begun': data('new', undefined),
  }
  expect(Object.entries(of).flatMap(([what, folder]) => (isServing(folder) ? [what] : []))).toEqual([
    'its own',
  ])
})
