// @vitest-environment happy-dom
import { lightEndpoints, type LightEvidenceView } from '@border/contract'
import { screen, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer } from '../test/server.ts'

let server: MockServer
beforeEach(async () => {
  server = await MockServer.fresh()
})

const evidence = answerTo(lightEndpoints.evidence)
const [look] = evidence.telling
const at = (day: string, hour: string) => ({ ...look!, instantMs: Date.parse(`${day}T${hour}Z`) })
const later = (times: number | null): LightEvidenceView['later'] => ({
  day: '2026-10-13',
  looks: [at('2026-10-13', '10:00'), at('2026-10-13', '15:40'), at('2026-10-13', '08:00')],
  times,
})

async function opened(more: Partial<LightEvidenceView>): Promise<HTMLElement> {
  server.on(lightEndpoints.evidence, () => ({ ...evidence, ...more }))
  const { user } = openApp(`/g/${gardenId}/light`)
  await user.click(await screen.findByText('Readings'))
  return screen.findByRole('region', { name: 'Where to look' })
}

describe('where to look', () => {
  it('is told of today, each look with what would be seen if', async () => {
    const region = await opened({ later: null })
    expect(within(region).getAllByRole('button')).toHaveLength(evidence.telling.length)
    expect(region.textContent).toMatch(/(sun|shade|dappled) if /)
    expect(region.textContent).not.toContain('Another sun')
  })

  it.each([
    [1.6, 'half as much again as now'],
    [2.2, 'twice as much as now'],
    [4.4, '4 times as much as now'],
    [37, 'far more than now'],
    [null, 'something, and now nothing'],
  ])('and of a day whose sun would tell %s times as much', async (times, words) => {
    const region = await opened({ telling: [], later: later(times) })
    expect(region.textContent).toContain('Nothing left today would tell more')
    expect(region.textContent).toMatch(/looking about 13 Oct/)
    expect(region.textContent).toContain(`would tell ${words}, best at 11:00 in `)
    expect(region.textContent).toMatch(/ and 16:40 in [^.]+\.$/)
  })
})
