// @vitest-environment happy-dom
import { recordEndpoints, type RecordView } from '@border/contract'
import { screen } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer } from '../test/server.ts'

let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
})

const answer = answerTo(recordEndpoints.read)
type Model = NonNullable<RecordView['model']>
const withModel = (more: Partial<Model>): RecordView => ({
  ...answer,
  model: {
    mean: 3.6,
    meanSe: 0.2,
    shares: [],
    untold: [],
    untied: [],
    taxa: [],
    places: [],
    years: [{ key: 2025, estimate: 0.2, se: 0.1, records: 9 }],
    lights: [],
    records: 20,
    iterations: 9,
    ...more,
  },
})
const opened = async (record: RecordView) => {
  server.on(recordEndpoints.read, () => record)
  openApp(`/g/${gardenId}/record`)
  await screen.findByRole('heading', { name: 'How to read it' })
}

describe('what the record tells apart', () => {
  const share = { low: 0.1, high: 0.4 }
  const shares: Model['shares'] = [
    { sources: ['place'], low: 0.02, high: 0.83 },
    { sources: ['taxon', 'planting'], share: 0.24, ...share },
    { sources: ['chance'], share: 0.31, ...share },
  ]

  it('is said with the range of each share, and with none where the range is too wide', async () => {
    await opened(withModel({ shares, untold: [{ sources: ['place'], why: 'wide' }], untied: [] }))
    screen.getByText(
      /24 % is the kind and the single planting together \(10 to 40 %\) and 31 % chance and the eye \(10 to 40 %\)\./,
    )
    screen.getByText(
      'How much is the place cannot be told yet: anything from 2 to 83 %. More places with the same kinds in them would tell.',
    )
  })

  it('is said to be nothing yet where no share is known, with what would tell it', async () => {
    const wide = shares.map(({ sources }) => ({ sources, low: 0, high: 0.9 }))
    await opened(
      withModel({
        shares: wide,
        untold: [{ sources: ['year'], why: 'single' }],
        untied: [],
        years: [],
      }),
    )
    expect(screen.getAllByText(/One season alone cannot show what years do\./)).toHaveLength(2)
    // No year is said to have given or taken anything.
    expect(screen.queryByRole('heading', { name: 'The years themselves' })).toBeNull()
  })

  it('is too little to say where there is no model', async () => {
    await opened({ ...answer, model: null })
    screen.getByText(/Too little yet to tell plant from spot from year\./)
    expect(screen.queryByRole('heading', { name: 'What it cannot tell yet' })).toBeNull()
  })
})
