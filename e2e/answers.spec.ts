import { expect, test, type Page } from '@playwright/test'
import { DEMO } from './playwright.config.ts'
import { enterDemo, goTo, watchForErrors } from './steps.ts'

async function enterCliffLane(page: Page): Promise<void> {
  await enterDemo(page, DEMO)
  await page.getByRole('combobox', { name: 'Garden' }).click()
  await page.getByRole('option', { name: 'Cliff Lane' }).waitFor({ state: 'attached' })
  await page.locator('.ant-select-item-option').getByText('Cliff Lane').click()
  await expect(
    page.getByText(/Plan of Cliff Lane/).or(page.getByRole('application', { name: /Plan of Cliff Lane/ })),
  ).toBeVisible()
}

test('a proposal is refused with a reason, another is put off, and both words stay on record', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterCliffLane(page)
  await goTo(page, 'Verdicts')
  const open = async () =>
    Number(/(\d+) proposals?/.exec(await page.getByText(/proposals? waits? for your word/).innerText())![1])
  await expect(page.getByText(/proposals? waits? for your word/)).toBeVisible()
  const before = await open()

  await page.getByRole('button', { name: /^Thalictrum delavayi/ }).click()
  await page.getByRole('button', { name: 'Weigh them all' }).click()
  await expect(page.getByText('Leaving a settled plant alone costs nothing.')).toBeVisible()
  await page.getByRole('radio', { name: 'Choose otherwise' }).check()
  await expect(page.getByRole('button', { name: 'Record: keep' })).toBeDisabled()
  await page
    .getByRole('textbox', { name: 'Reason' })
    .fill('It is where she wants to see it from the kitchen.')
  await page.getByRole('button', { name: 'Record: keep' }).click()
  await expect(page.getByRole('button', { name: /^Thalictrum delavayi ✓ keep/ })).toBeVisible()

  await page.getByRole('button', { name: /^Ligularia przewalskii/ }).click()
  await page.getByRole('radio', { name: 'Wait' }).check()
  await page.getByRole('button', { name: 'Wait', exact: true }).click()
  await expect(page.getByRole('button', { name: /^Ligularia przewalskii ✓ wait/ })).toBeVisible()
  expect(await open()).toBe(before - 2)

  await page.reload()
  await page.getByRole('button', { name: /^Thalictrum delavayi ✓ keep/ }).click()
  await expect(
    page.getByText(/Marla Quill: proposed move; chose keep\. It is where she wants to see it/),
  ).toBeVisible()
  await page.getByRole('link', { name: /its story/ }).click()
  await expect(
    page.getByText('Proposed move; decided keep instead. It is where she wants to see it from the kitchen.'),
  ).toBeVisible()
  expect(errors).toEqual([])
})

test('a job is pinned to a day, re-planned when that day is lost, and a false record is taken back', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterCliffLane(page)
  await goTo(page, 'Verdicts')
  await page.getByRole('button', { name: /^Aconitum carmichaelii/ }).click()
  await page.getByRole('radio', { name: 'Choose otherwise' }).check()
  await page.getByRole('combobox', { name: 'Instead' }).click()
  await page.locator('.ant-select-item-option').getByText('move', { exact: true }).click()
  await page.getByRole('textbox', { name: 'Reason' }).fill('The path is too near for a poisonous plant.')
  await page.getByRole('button', { name: 'Record: move' }).click()
  await expect(page.getByRole('button', { name: /^Aconitum carmichaelii ✓ move/ })).toBeVisible()

  await goTo(page, 'Season')
  const lift = page.getByRole('button', { name: /^Lift Aconitum carmichaelii from .* min$/ })
  await lift.click()
  await expect(
    page.getByText('Poisonous if eaten: gloves; keep pieces from children and pets.'),
  ).toBeVisible()
  // By the keyboard, to the fourth day of its window: what comes before it moves along.
  const strip = page.getByRole('slider', { name: 'Do it on' })
  await strip.focus()
  await page.keyboard.press('Home')
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight')
  const chosen = (await strip.getAttribute('aria-valuetext'))!
  await page.keyboard.press('Enter')
  await expect(page.getByText(/^Pinned to/)).toBeVisible()
  await expect(lift).toContainText('pinned')
  const [dayText] = /^\d+ \w+ \d+/.exec(chosen)!

  await goTo(page, 'Set-up')
  await page
    .getByLabel('Day that differs')
    .fill(dayText.replace('Sept', 'Sep').replace('March', 'Mar').replace('April', 'Apr'))
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Keep the day' }).click()
  await expect(page.getByText(/kept; the season is planned anew/)).toBeVisible()
  await goTo(page, 'Season')
  await expect(page.getByRole('heading', { name: new RegExp(` ${dayText}$`) })).toBeHidden()
  await expect(lift).not.toContainText('pinned')

  await page.getByRole('button', { name: /^Prepare .* for Aconitum carmichaelii .* min$/ }).click()
  await page.getByRole('button', { name: 'Record it done' }).click()
  await page.getByRole('button', { name: 'Record', exact: true }).click()
  await page.getByRole('button', { name: /✓ Prepare .* for Aconitum/ }).click()
  await page.getByRole('button', { name: /take it back/ }).click()
  await expect(page.getByText('Taken back; it is open again.')).toBeVisible()
  await expect(page.getByRole('button', { name: /✓ Prepare .* for Aconitum/ })).toBeHidden()
  expect(errors).toEqual([])
})

test('something entered by mistake comes off the plan and goes back on', async ({ page }) => {
  await enterCliffLane(page)
  await goTo(page, 'Plan')
  await page.getByRole('button', { name: 'Take Garden room off the plan' }).click()
  await page.getByRole('button', { name: 'Take it off' }).click()
  await expect(page.getByRole('button', { name: /^Garden room building/ })).toBeHidden()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name: /^Garden room building/ })).toBeVisible()
})
