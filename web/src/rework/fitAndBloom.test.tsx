// @vitest-environment happy-dom
import { gardenEndpoints, reworkEndpoints, taxonEndpoints, type SuitedView } from '@border/contract'
import { dayMonth, library } from '@border/core'
import { render, screen, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, Refuses } from '../test/server.ts'
import { BloomStrip } from './BloomStrip.tsx'

const view = answerTo(gardenEndpoints.read)
const [first, second] = view.features.filter((f) => f.kind === 'bed' || f.kind === 'container')

describe('where a kind could go', () => {
  let server: MockServer
  beforeEach(async () => {
    server = await MockServer.fresh()
    server.on(taxonEndpoints.list, () => library.map((t) => ({ ...t, own: null })))
  })
  const suited = (placeId: string, scores: number[], reason: string): SuitedView => ({
    placeId,
    cellM: 0.5,
    cells: scores.map((s, i): SuitedView['cells'][number] => [i / 2, 0, s, 0]),
    reasons: [reason],
    best: {
      x: 0,
      y: 0,
      suiting: { score: Math.max(...scores), limiting: 'light', reason } as SuitedView['best']['suiting'],
    },
    goodShare: scores.filter((s) => s >= 0.7).length / scores.length,
  })

  it('is told of every place, the best first, with what limits it there', async () => {
    server.on(reworkEndpoints.fit, () => [
      suited(first!.id, [0.9, 0.8, 0.3, 0.2], 'four hours of sun, inside its range'),
      suited(second!.id, [0.3], 'two hours less sun than it likes'),
    ])
    openApp(`/g/${gardenId}/rework?show=fit&kind=${encodeURIComponent('Nepeta × faassenii')}`)
    const places = within(await screen.findByRole('list', { name: 'Places, the best first' }))
    const [best, worst] = places.getAllByRole('listitem')
    expect(best!.textContent).toContain(first!.name)
    expect(best!.textContent).toContain('50 % of it')
    expect(best!.textContent).toContain('four hours of sun, inside its range')
    expect(worst!.textContent).toContain('none of it')
    expect(server.askedOf(reworkEndpoints.fit)[0]!.query.get('botanical')).toBe('Nepeta × faassenii')
  })

  it('says why where it cannot be told, and asks nothing before a kind is in the hand', async () => {
    server.on(reworkEndpoints.fit, () => new Refuses(404, 'Nothing known in the plant library is not there.'))
    openApp(`/g/${gardenId}/rework?show=fit`)
    await screen.findByText(/Choose one: what is left on the cart/)
    expect(server.askedOf(reworkEndpoints.fit)).toHaveLength(0)
    openApp(`/g/${gardenId}/rework?show=fit&kind=Nothing%20known`)
    await screen.findByText(/in the plant library is not there/)
  })
})

describe('the bloom of a place', () => {
  const kinds = library.filter((t) => t.flowerColour).slice(0, 2)
  const kindOf = new Map(kinds.map((t) => [t.botanical, t]))
  const [a, b] = kinds.map((t) => t.botanical) as [string, string]

  it('is a block for each kind in its colour, week by week, and weeks without one are counted', () => {
    const weeks = ['2026-06-29', '2026-07-06', '2026-07-13']
    const { container } = render(<BloomStrip weeks={weeks} flowering={[[a], [], [a, b]]} kindOf={kindOf} />)
    screen.getByRole('img', { name: '1 week without a flower.' })
    const told = [...container.querySelectorAll('rect')].map((r) => [
      r.getAttribute('fill'),
      r.querySelector('title')!.textContent,
    ])
    expect(told).toEqual([
      [kinds[0]!.flowerColour, `Week of ${dayMonth('2026-06-29')}: ${a}`],
      ['var(--danger-weak)', `Week of ${dayMonth('2026-07-06')}: nothing in flower`],
      [kinds[0]!.flowerColour, `Week of ${dayMonth('2026-07-13')}: ${a}, ${b}`],
      [kinds[1]!.flowerColour, `Week of ${dayMonth('2026-07-13')}: ${a}, ${b}`],
    ])
  })

  it('is without a gap where something flowers in every week', () => {
    render(<BloomStrip weeks={['2026-06-01']} flowering={[[b]]} kindOf={kindOf} />)
    screen.getByRole('img', { name: 'Something flowers in every week.' })
  })
})
