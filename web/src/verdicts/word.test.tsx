// @vitest-environment happy-dom
import { reworkEndpoints, verdictEndpoints, type AssessmentView } from '@border/contract'
import type { OfferedRemedy } from '@border/core'
import { screen, waitFor, within } from '@testing-library/react'
import { beforeEach, describe, expect, it } from 'vitest'
import { openApp } from '../test/openApp.tsx'
import { answerTo, gardenId, MockServer, Refuses, today } from '../test/server.ts'

let server: MockServer
const assessed = (): AssessmentView => answerTo(verdictEndpoints.assessment)
/** One that is proposed to be watched, and on which nobody has decided. */
const watched = assessed().assessments.find((a) => a.verdict.action === 'watch')!

beforeEach(async () => {
  server = await MockServer.fresh()
  server.on(verdictEndpoints.decide, () => ({ decisionId: watched.plantingId }))
})

async function opened() {
  const app = openApp(`/g/${gardenId}/verdicts?planting=${watched.plantingId}`)
  return { ...app, word: within(await screen.findByRole('region', { name: 'Your decision' })) }
}
const sent = () => server.askedOf(verdictEndpoints.decide).map((a) => a.body)
const base = {
  plantingId: watched.plantingId,
  on: today,
  seen: [{ plantingId: watched.plantingId, decisionId: null }],
}

describe('a word on a verdict', () => {
  it('accepts it', async () => {
    const { user, word } = await opened()
    await user.click(word.getByRole('button', { name: 'Agree: watch it another season' }))
    await screen.findByText('Recorded.')
    expect(sent()).toEqual([{ ...base, choice: 'accept' }])
  })

  it('says of what a scheme takes along that its steps would go', async () => {
    const [rework] = answerTo(reworkEndpoints.list)
    const [scheme] = rework!.schemes
    const { plantingId } = watched
    const said = { ...scheme!.said, leaving: [{ plantingId, how: 'leaves' as const, to: null, worth: 1 }] }
    const carried = { accepted: { at: '2026-09-10T08:00:00Z', by: null }, steps: { done: 1, open: 4 } }
    server.on(reworkEndpoints.list, () => [{ ...rework!, schemes: [{ ...scheme!, ...carried, said }] }])
    const { word } = await opened()
    const note = await word.findByRole('note')
    expect(note.textContent).toBe(
      `It leaves by ${said.name}, which is being carried out. Another word here takes its steps out of the season.`,
    )
    expect(within(note).getByRole('link').getAttribute('href')).toContain(`/rework/${rework!.id}?`)
  })

  it('chooses otherwise only with a reason, and among what can be done', async () => {
    const { user, word } = await opened()
    await user.click(word.getByRole('radio', { name: 'Choose otherwise' }))
    const record = word.getByRole('button', { name: /^Instead: / })
    expect((record as HTMLButtonElement).disabled).toBe(true)
    expect(word.getByText('A word on why is kept with the decision.')).toBeTruthy()
    await user.type(word.getByLabelText('Reason'), 'no')
    expect((record as HTMLButtonElement).disabled).toBe(true)
    await user.type(word.getByLabelText('Reason'), 'thing wrong with it')
    await user.click(record)
    await screen.findByText(/^Recorded/)
    expect(sent()).toEqual([
      { ...base, choice: 'otherwise', action: 'keep', reason: 'nothing wrong with it' },
    ])
  })

  it('waits until a day ahead, half a year unless another is chosen', async () => {
    const { user, word } = await opened()
    await user.click(word.getByRole('radio', { name: 'Wait' }))
    await user.click(word.getByRole('button', { name: 'Wait' }))
    await screen.findByText('Left for later.')
    expect(sent()).toEqual([{ ...base, choice: 'wait', until: '2027-03-15' }])
  })

  it('that is refused is said in words, and nothing is taken for done', async () => {
    server.on(verdictEndpoints.decide, () => new Refuses(409, 'Others are changing this garden just now.'))
    const { user, word } = await opened()
    await server.settled()
    const before = server.asked.length
    await user.click(word.getByRole('button', { name: 'Agree: watch it another season' }))
    await screen.findByText('Others are changing this garden just now.')
    // Nothing that was there is read again; the successors may be asked for the first time only now.
    const again = server.askedSince(before).filter((name) => name !== 'verdicts.successions')
    expect(again).toEqual(['verdicts.decide'])
    expect(screen.queryByText('Recorded.')).toBeNull()
  })

  it('is not asked of who only reads the garden', async () => {
    server.seenBy('keeper')
    openApp(`/g/${gardenId}/verdicts?planting=${watched.plantingId}`)
    await screen.findByText('Weigh them all')
    expect(screen.queryByRole('region', { name: 'Your decision' })).toBeNull()
    expect(screen.queryByRole('button', { name: /^Accept/ })).toBeNull()
  })
})

describe('a verdict', () => {
  it('shows what decided it, largest first, and all that was weighed when it is asked', async () => {
    const { user } = await opened()
    const points = () =>
      [...document.querySelectorAll('.verdict-points')].map((p) => Number(p.textContent.replace('−', '-')))
    const own = points().map(Math.abs)
    expect(own).toEqual([...own].sort((a, b) => b - a))
    expect(own.length).toBeGreaterThan(0)
    await user.click(screen.getByRole('button', { name: 'Weigh them all' }))
    await waitFor(() => expect(points().length).toBeGreaterThan(own.length))
    for (const { action, why } of watched.verdict.ruledOut)
      expect(
        screen.getByText(
          (_, e) => e?.tagName === 'P' && e.textContent === `${action} is not proposed. ${why}`,
        ),
      ).toBeTruthy()
  })

  it('says what is done, when and why then, and what it costs to wait; of other remedies a line', async () => {
    const view = assessed()
    const own: OfferedRemedy = {
      id: 'lift-buried-crown',
      action: 'lift and replant',
      points: 70,
      signs: ['buried'],
      says: 'A buried crown rots.',
      does: 'Lift it and set it higher',
      steps: ['Water the day before.'],
      waiting: 'Each wet winter takes more of it.',
      window: {
        season: 'autumn',
        earliest: '2026-09-20',
        bestFrom: '2026-09-25',
        bestTo: '2026-10-10',
        latest: '2026-10-20',
        why: { earliest: 'Not before.', bestFrom: 'Cooler.', bestTo: 'Warm soil.', latest: 'Roots in time.' },
      },
      subject: null,
    }
    const other: OfferedRemedy = {
      ...own,
      id: 'thin',
      action: 'thin',
      does: 'Thin its neighbour',
      window: null,
    }
    server.on(verdictEndpoints.assessment, () => ({
      ...view,
      assessments: view.assessments.map((a) =>
        a.plantingId === watched.plantingId
          ? {
              ...a,
              verdict: {
                ...a.verdict,
                action: own.action,
                scores: { ...a.verdict.scores, [own.action]: 70, thin: 60 },
                remedies: [own, other],
              },
            }
          : a,
      ),
    }))
    const { user, word } = await opened()
    expect(await screen.findByText('Lift it and plant it again.')).toBeTruthy()
    expect(screen.getByText('Water the day before.')).toBeTruthy()
    expect(
      screen.getByText(/When: 20 September to 20 October, best from 25 September to 10 October/),
    ).toBeTruthy()
    expect(screen.getByText('Roots in time.')).toBeTruthy()
    expect(screen.getByText(/Each wet winter takes more of it/)).toBeTruthy()
    expect(screen.getByText(/Thin its neighbour/).textContent).toMatch(/^Thin\./)
    await user.click(word.getByRole('button', { name: 'Agree: lift it and plant it again' }))
    await screen.findByText('Recorded; its jobs are in the season plan.')
  })

  it('counts for as much as waits for a word, and says so', async () => {
    await opened()
    const open = assessed().assessments.filter((a) => a.verdict.action !== 'keep').length
    expect(await screen.findByText(`${open} proposals`)).toBeTruthy()
  })
})
