import { connect, insertPerson, insertPractice, migrate, type Db } from '@border/server'
import { cpSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { scratchDatabase } from './databases.ts'
import { importFolder } from './importFolder.ts'
import { projectRoot } from './paths.ts'

const example = join(projectRoot, 'examples', 'walled-court')
let db: Db
let drop: () => Promise<void>

beforeAll(async () => {
  const made = await scratchDatabase()
  drop = made.drop
  db = connect(made.url, 2)
  await migrate(db)
  const practiceId = await insertPractice(db, 'Scratch')
  await insertPerson(db, {
    practiceId,
    name: 'Head',
    email: 'head@example.invalid',
    passwordHash: 'x',
    leads: true,
  })
})
afterAll(async () => {
  await db.destroy()
  await drop()
})

const gardens = async () => (await db('gardens').select('name')).map((g) => g.name)

it('checks without saving, saves once, and refuses the same garden again', async () => {
  expect(await importFolder(db, example, { dryRun: true })).toMatchObject({
    saved: false,
    plantings: 9,
    weatherDays: 4748,
  })
  expect(await gardens()).toEqual([])
  expect(await importFolder(db, example, { dryRun: false })).toMatchObject({
    saved: true,
    counts: { bed: 2, container: 1 },
  })
  await expect(importFolder(db, example, { dryRun: false })).rejects.toThrow(
    'already has a garden called Walled Court',
  )
  expect(await gardens()).toEqual(['Walled Court'])
})

it('names every fault of all three files and saves nothing', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'border-import-'))
  cpSync(example, folder, { recursive: true })
  const spoil = (name: string, from: string, to: string) =>
    writeFileSync(join(folder, name), readFileSync(join(folder, name), 'utf8').replace(from, to))
  spoil('plan.geojson', 'Walled Court', 'Other Court')
  spoil('plantings.csv', 'Door pot,Fuchsia magellanica', 'Door pot,Fuchsia imaginaria')
  spoil('weather.csv', '2013-01-02', '2012-01-02')
  await expect(importFolder(db, folder, { dryRun: false })).rejects.toMatchObject({
    lines: [
      'weather.csv, line 3, column day: not after the day before it (2013-01-01)',
      'plantings.csv, line 10, column taxon: Fuchsia imaginaria is not in the plant library',
      'Nothing was saved.',
    ],
  })
  spoil('plantings.csv', 'Fuchsia imaginaria', 'Fuchsia magellanica')
  spoil('plantings.csv', '3.2,11.6', '3.2,17')
  spoil('weather.csv', '2012-01-02', '2013-01-02')
  await expect(importFolder(db, folder, { dryRun: false })).rejects.toMatchObject({
    lines: ['plantings.csv, line 2, column x: x and y lie outside Court border', 'Nothing was saved.'],
  })
  await expect(importFolder(db, example, { as: 'nobody@example.invalid', dryRun: true })).rejects.toThrow(
    'nobody@example.invalid',
  )
  expect(await gardens()).toEqual(['Walled Court'])
})
