import { randomUUID } from 'node:crypto'
import { featureKinds } from '@border/core'
import { expect, it } from 'vitest'
import * as walk from '../database/003_walk.ts'
import * as foundation from '../database/007_foundation.ts'
import * as oneOfEach from '../database/008_one_of_each.ts'
import * as whatIsTold from '../database/009_what_is_told.ts'
import * as corrections from '../database/019_corrections.ts'
import * as pictures from '../database/020_pictures.ts'
import * as reworks from '../database/021_reworks.ts'
import * as carriedOut from '../database/022_carried_out.ts'
import * as schemeLinks from '../database/023_scheme_links.ts'
import * as fills from '../database/024_fills.ts'
import * as potChecks from '../database/025_pot_checks.ts'
import * as taps from '../database/026_taps.ts'
import * as preferences from '../database/027_preferences.ts'
import * as drainTests from '../database/028_drain_tests.ts'
import * as limits from '../database/010_limits.ts'
import { practiceWithGarden } from './practice.ts'

it('walks noted before there were signs become observations, and go back as they were', async () => {
  const practice = await practiceWithGarden()
  const { db } = practice
  try {
    const planting = await db('plantings').first('id')
    for (const later of [
      drainTests,
      preferences,
      taps,
      potChecks,
      fills,
      schemeLinks,
      carriedOut,
      reworks,
      pictures,
      corrections,
      limits,
      whatIsTold,
      oneOfEach,
      foundation,
    ])
      await later.down(db)
    await walk.down(db)
    const event = { planting_id: planting.id, kind: 'observed', says: 'On the walk: 4 of 5, good.' }
    await db('planting_events').insert([
      { ...event, id: randomUUID(), on_date: '2024-06-08', living: 2 },
      { ...event, id: randomUUID(), on_date: '2024-09-04', living: null },
    ])
    await walk.up(db)
    const kept = () => db('observations').orderBy('on_date').select('on_date', 'living', 'note')
    const expected = [
      { on_date: '2024-06-08', living: 2, note: event.says },
      { on_date: '2024-09-04', living: null, note: event.says },
    ]
    expect(await kept()).toEqual(expected)
    expect(await db('planting_events').where({ kind: 'observed' })).toEqual([])
    await walk.down(db)
    const back = await db('planting_events').where({ kind: 'observed' }).orderBy('on_date')
    expect(back.map((e) => [e.on_date, e.living, e.says])).toEqual(
      expected.map((o) => [o.on_date, o.living, o.note]),
    )
    await walk.up(db)
    expect(await kept()).toEqual(expected)
  } finally {
    await practice.stop()
  }
})

it('the database takes every kind of thing that a plan is made of; a tap is water meanwhile where there was none', async () => {
  const practice = await practiceWithGarden()
  const { db } = practice
  try {
    const { id: garden_id } = await db('gardens').first('id')
    const add = (kind: string) =>
      db('features').insert({
        id: randomUUID(),
        garden_id,
        kind,
        name: `A ${kind} of its own`,
        geometry: { type: 'Point', coordinates: [1, 2] },
      })
    for (const kind of featureKinds) await add(kind)
    await expect(add('fountain')).rejects.toThrow('features_kind_check')
    const kindOf = async () => (await db('features').where({ name: 'A tap of its own' }).first('kind')).kind
    expect(await kindOf()).toBe('tap')
    await taps.down(db)
    expect(await kindOf()).toBe('water')
    await expect(add('tap')).rejects.toThrow('features_kind_check')
    await taps.up(db)
    expect(await kindOf()).toBe('tap')
  } finally {
    await practice.stop()
  }
})

it('a test of a mix is kept on the way down as something taken back, and one that was taken back stays so', async () => {
  const practice = await practiceWithGarden()
  const { db } = practice
  try {
    const { id: garden_id } = await db('gardens').first('id')
    const { id: container_id } = await db('features').where({ garden_id, kind: 'container' }).first('id')
    const keep = async (more: object) => {
      const id = randomUUID()
      await db('pot_checks').insert({
        id,
        garden_id,
        container_id,
        on_date: '2026-05-01',
        kind: 'drained',
        sample_l: 4,
        filled_l: 3,
        drained_l: 1,
        ...more,
      })
      return id
    }
    await expect(keep({ filled_l: 4 })).rejects.toThrow('check constraint')
    await expect(keep({ drained_l: 3 })).rejects.toThrow('check constraint')
    await expect(keep({ drained_l: null })).rejects.toThrow('pot_checks_drained')
    await expect(keep({ kind: 'watered' })).rejects.toThrow('pot_checks_drained')
    const stands = await keep({})
    const takenBack = await keep({ withdrawn_at: '2026-05-02T10:00:00Z' })
    const found = () =>
      db('pot_checks').whereIn('id', [stands, takenBack]).select('id', 'kind', 'sample_l', 'withdrawn_at')
    const before = await found()
    await drainTests.down(db)
    const meanwhile = await db('pot_checks').where({ withdrawn_at: null }).whereIn('id', [stands, takenBack])
    expect(meanwhile).toEqual([])
    await drainTests.up(db)
    expect(new Set(await found())).toEqual(new Set(before))
  } finally {
    await practice.stop()
  }
})
