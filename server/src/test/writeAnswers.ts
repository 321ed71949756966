import {
  addressOf,
  endpoints,
  type Endpoint,
  type GardenView,
  type GroundView,
  type SeasonView,
  type SuitedView,
} from '@border/contract'
import { addDays } from '@border/core'
import { randomUUID } from 'node:crypto'
import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import sharp from 'sharp'
import { look, questionOf, settle, write } from './asked.ts'
import { drawing, takingOff } from './edits.ts'
import { practiceWithGarden } from './practice.ts'
import { beginning } from './schemes.ts'
import { fillOf } from './validWrites.ts'

/**
 * Writes down what the server answers of a small garden with something of everything in it, for the tests of the web. Long lists
 * are cut: what is left is as it was answered. Run with `npm run answers -w cli`, after a change of what is answered.
 */

const FILE = join(import.meta.dirname, '..', '..', '..', 'web', 'src', 'test', 'answers.json')
const TODAY = '2026-09-15'
const MOST_LISTED = 12
const MOST_STATIONS = 160

export async function writeAnswers(): Promise<string> {
  const practice = await practiceWithGarden(undefined, () => Date.parse(`${TODAY}T10:00:00Z`))
  try {
    await practice.work([0, 240, 240, 240, 240, 240, 0])
    const garden = await look<GardenView>(practice, '')
    const yesterday = addDays(TODAY, -1)
    const seen = garden.plantings.slice(0, 3).map((p, i) => ({
      kind: 'planting',
      id: randomUUID(),
      plantingId: p.id,
      on: yesterday,
      at: `${yesterday}T09:00:00Z`,
      rating: 1 + 2 * i,
      ...(i === 0 && { signs: ['scorched'], note: 'Since the wall came down.' }),
    }))
    await write(practice, '/walk-entries', { entries: seen })
    await write(practice, '/bench', {
      taxonBotanical: 'Hosta sieboldiana',
      count: 3,
      since: yesterday,
      note: 'in pots',
    })
    const pot = garden.features.find((f) => f.kind === 'container')!
    await write(practice, '/containers/fills', fillOf(pot.id, { in: [] }))
    await write(practice, '/containers/checks', {
      containerId: pot.id,
      on: yesterday,
      kind: 'felt',
      felt: 'dry',
    })
    await write(practice, '/soil', { day: yesterday, celsius: 14.5 })
    await write(practice, '/recheck')
    await write(practice, '/light-readings', { at: `${yesterday}T11:30:00Z`, x: 5.5, y: 11.6, seen: 'shade' })
    await write(practice, '/decisions', {
      plantingId: garden.plantings[3]!.id,
      on: TODAY,
      choice: 'wait',
      until: '2027-03-01',
    })
    const bench = { kind: 'viewpoint', name: 'The bench' }
    const benchId = randomUUID()
    const at = { type: 'Point', coordinates: [2, 2] }
    await write(
      practice,
      '/plan/edits',
      drawing({ feature: { type: 'Feature', properties: bench, geometry: at } }, benchId),
    )
    await write(practice, '/plan/edits', takingOff(benchId))
    const pictureId = randomUUID()
    const pictures = `/gardens/${practice.gardenId}/plan/pictures`
    const paper = sharp({ create: { width: 400, height: 300, channels: 3, background: '#f2e7cb' } })
    await practice.head.post(
      pictures,
      { id: pictureId, name: 'Survey of 1998' },
      { file: await paper.png().toBuffer() },
    )
    await write(practice, `/plan/pictures/${pictureId}/amend`, {
      laying: { how: 'two points', a: { px: [20, 280], at: [0, 0] }, b: [380, 280], lengthM: 24, turnDeg: 0 },
    })
    const rework = beginning(garden.plantings[0]!.placeId, {
      leaving: [{ plantingId: garden.plantings[0]!.id, how: 'leaves', to: null, worth: 1 }],
    })
    await write(practice, '/reworks', rework)
    const { token } = await write<{ token: string }>(
      practice,
      `/reworks/${rework.id}/schemes/${rework.schemes[0]!.id}/link`,
      { until: addDays(TODAY, 30) },
    )
    await practice.head.post('/prices', {
      id: randomUUID(),
      supplier: 'Lane Nursery',
      item: 'Hosta sieboldiana',
      packs: [{ name: '9 cm pot', holds: 1, price: 450 }],
      pricedOn: yesterday,
    })
    await settle(practice)
    const { jobs } = await look<SeasonView>(practice, '/season')
    const params = {
      gardenId: practice.gardenId,
      plantingId: garden.plantings[0]!.id,
      featureId: garden.plantings[0]!.placeId,
      containerId: pot.id,
      jobId: jobs.find((j) => j.state === 'open' && j.plannedOn !== null)!.id,
      token,
    }
    const answers: Record<string, unknown> = {}
    for (const [area, list] of Object.entries(endpoints))
      for (const [name, endpoint] of Object.entries<Endpoint>(list)) {
        if (endpoint.method !== 'get' || endpoint.sends) continue
        const { status, body } = await practice.head.get(
          `${addressOf(endpoint.path, params)}${questionOf(`${area}.${name}`)}`,
        )
        if (status !== 200) throw new Error(`${area}.${name}: ${status} ${JSON.stringify(body)}`)
        answers[`${area}.${name}`] = body
      }
    for (const list of ['taxa.list', 'rules.list'] as const)
      answers[list] = (answers[list] as unknown[]).slice(0, MOST_LISTED)
    const ground = answers['reworks.ground'] as GroundView
    answers['reworks.ground'] = { ...ground, stations: ground.stations.slice(0, MOST_STATIONS) }
    const fit = answers['reworks.fit'] as SuitedView[]
    answers['reworks.fit'] = fit.map((f) => ({ ...f, cells: f.cells.slice(0, MOST_LISTED) }))
    const season = answers['seasons.read'] as SeasonView
    answers['seasons.read'] = {
      ...season,
      jobs: season.jobs.slice(0, MOST_LISTED),
      workingDays: season.workingDays.slice(0, MOST_LISTED),
    }
    writeFileSync(FILE, `${JSON.stringify({ params, today: TODAY, answers })}\n`)
    return FILE
  } finally {
    await practice.stop()
  }
}
