import type { Page } from '@playwright/test'
import { expect, test } from './practice.ts'
import { expectAccessible, goTo, watchForErrors } from './steps.ts'

test.use({ begins: 'empty' })

/** What a newcomer does by hand: each click, choice and field is one. Ten minutes hold some hundred and twenty of five seconds. */
const MOST_STEPS = 120
/** Of which the machine may take so much, milliseconds. */
const MOST_MACHINE_MS = 60_000

/** Counts what a person does, and how long they wait for the machine. */
function counting(page: Page) {
  let [steps, waitedMs] = [0, 0]
  const timed = async (work: () => Promise<unknown>) => {
    const from = Date.now()
    await work()
    waitedMs += Date.now() - from
  }
  return {
    press: (name: string | RegExp) => {
      steps++
      return timed(() =>
        page
          .getByRole('button', { name, exact: typeof name === 'string' })
          .first()
          .click(),
      )
    },
    fill: (label: string | RegExp, value: string) => {
      steps++
      const field = page.getByLabel(label, { exact: typeof label === 'string' }).first()
      return timed(async () => {
        await field.fill(value)
        await field.press('Tab')
      })
    },
    choose: (label: string, value: string) => {
      steps++
      return timed(() => page.getByRole('combobox', { name: label, exact: true }).selectOption(value))
    },
    step: () => {
      steps++
    },
    timed,
    told: () => ({ steps, waitedMs }),
  }
}

test('a newcomer comes by hand from nothing to how much sun, who stands wrong and what is due', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  const hand = counting(page)
  await hand.timed(() => page.goto('/'))
  await hand.fill('Practice', 'Back yard')
  await hand.fill('Your name', 'First Person')
  await hand.fill('E-mail address', 'first@example.invalid')
  await hand.fill('Password', 'a long row of beans')
  await hand.press('Make the account')
  await hand.timed(() => page.getByRole('heading', { name: 'Your first garden' }).waitFor())
  hand.step()
  await page.getByRole('tab', { name: 'By hand' }).click()
  await hand.fill('Name of the garden', 'Back yard')
  await hand.fill('Latitude', '42.3')
  await hand.fill('Longitude', '-83.0')
  await hand.fill('Time zone', 'America/Detroit')
  await hand.press('Start the plan')
  await hand.timed(() => page.getByRole('region', { name: 'To begin with' }).waitFor())

  // One bed that came ready, and the house south of it.
  await hand.press('Draw a bed')
  await hand.fill('Name', 'Fence bed')
  await hand.fill('Length of the shape', '6')
  await hand.fill('Width of the shape', '2')
  await hand.press('Draw it')
  await hand.press('Put it on the plan')
  await hand.timed(() => page.getByRole('button', { name: /^Fence bed bed/ }).waitFor())
  await hand.press('A house')
  await hand.fill('Name', 'House')
  await hand.fill('Length of the shape', '10')
  await hand.fill('Width of the shape', '8')
  await hand.press('Draw it')
  await hand.fill('Metres east', '5')
  await hand.fill('Metres north', '-4')
  await hand.press('Put it on the plan')
  await hand.timed(() => page.getByRole('button', { name: /^House building/ }).waitFor())

  // Eight kinds as people call them, typed one after another.
  hand.step()
  await page.getByRole('link', { name: 'Name the plants' }).click()
  await hand.press('Add plants')
  const typed = page.getByLabel('How many of what')
  for (const line of [
    '3 conef',
    '5 hosta',
    '1 lilac',
    '3 bee balm',
    '2 peony',
    '5 daylily',
    '3 black eyed susan',
    '1 japanese maple',
  ]) {
    hand.step()
    await hand.timed(async () => {
      await typed.fill(line)
      await page.getByRole('list', { name: 'It may be' }).waitFor()
      await typed.press('Enter')
      await expect(typed).toHaveValue('')
    })
  }
  await hand.press('Done')
  await goTo(page, 'Plan')
  hand.step()
  const answers = page.getByRole('region', { name: 'To begin with' })
  await hand.timed(() => answers.getByText('Three answers').waitFor())
  await expect(answers).toContainText(/Fence bed: .* a day in the growing season/)
  await expect(answers).toContainText(/too little sun|too much|Nobody: each has the light it likes/)
  await expect(answers).toContainText(/: (now, until|from) /)
  await expect(answers).toContainText('For better ones, most first')
  await expectAccessible(page, 'the first answers')

  const { steps, waitedMs } = hand.told()
  test.info().annotations.push({ type: 'newcomer', description: `${steps} steps, ${waitedMs} ms of machine` })
  expect(steps).toBeLessThanOrEqual(MOST_STEPS)
  expect(waitedMs).toBeLessThan(MOST_MACHINE_MS)
  expect(errors).toEqual([])
})
