import type { Page } from '@playwright/test'
import { expect, test } from './practice.ts'
import { enterDemo, expectAccessible, goTo, watchForErrors } from './steps.ts'

async function enterCliffLane(page: Page): Promise<void> {
  await enterDemo(page)
  await page.getByRole('combobox', { name: 'Garden' }).selectOption('Cliff Lane')
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
    Number(
      /(\d+) proposals?/.exec(await page.getByText(/proposals? waits? for your decision/).innerText())![1],
    )
  await expect(page.getByText(/proposals? waits? for your decision/)).toBeVisible()
  const before = await open()

  await page.getByRole('button', { name: /^Thalictrum delavayi/ }).click()
  await page.getByRole('button', { name: 'Weigh them all' }).click()
  await expect(page.getByText('Leaving a settled plant alone costs nothing.')).toBeVisible()
  await page.getByRole('radio', { name: 'Choose otherwise' }).check()
  await expect(page.getByRole('button', { name: 'Instead: keep it where it is' })).toBeDisabled()
  await page
    .getByRole('textbox', { name: 'Reason' })
    .fill('It is where she wants to see it from the kitchen.')
  await page.getByRole('button', { name: 'Instead: keep it where it is' }).click()
  await expect(page.getByRole('button', { name: /^Thalictrum delavayi ✓ keep/ })).toBeVisible()

  await page.getByRole('button', { name: /^Ligularia przewalskii/ }).click()
  await page.getByRole('radio', { name: 'Wait' }).check()
  await page.getByRole('button', { name: 'Wait', exact: true }).click()
  await expect(page.getByRole('button', { name: /^Ligularia przewalskii ✓ wait/ })).toBeVisible()
  expect(await open()).toBe(before - 2)

  await page.reload()
  await page.getByRole('button', { name: /^Thalictrum delavayi ✓ keep/ }).click()
  await expect(
    page.getByText(/Marla Quill: proposed [a-z ]+; chose keep\. It is where she wants to see it/),
  ).toBeVisible()
  await page.getByRole('link', { name: /its story/ }).click()
  await expect(
    page.getByText(
      /Proposed [a-z ]+; decided keep instead\. It is where she wants to see it from the kitchen\./,
    ),
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
  await page.getByRole('button', { name: 'Instead: move it' }).click()
  await expect(page.getByRole('button', { name: /^Aconitum carmichaelii ✓ move/ })).toBeVisible()

  await goTo(page, 'Season')
  const lift = page.getByRole('button', { name: /^Lift Aconitum carmichaelii from .* min$/ })
  await lift.click()
  await expect(
    page.getByText('Poisonous if eaten, to people, cats, dogs and horses: gloves; keep pieces out of reach.'),
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
  await page.getByRole('button', { name: /^Garden room building/ }).click()
  await page.getByRole('button', { name: 'Take it off the plan' }).click()
  await page.getByRole('button', { name: 'Take it off', exact: true }).click()
  await page.getByRole('button', { name: 'It was never there' }).click()
  await expect(page.getByText('Garden room: the plan is right.')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Garden room building/ })).toBeHidden()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name: /^Garden room building/ })).toBeVisible()
  await page.getByText('Changes', { exact: true }).click()
  await expect(page.getByText('Garden room taken off the plan.')).toBeVisible()
})

test('a planting entered wrongly is put right, one that never was comes out, and a look is taken back', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterCliffLane(page)
  await goTo(page, 'Plants')
  // A planting of its own, so that no other flow stands in its way.
  await page.getByRole('button', { name: 'Add plants' }).click()
  await page.getByRole('button', { name: /One with everything said/ }).click()
  const form = page.getByRole('dialog', { name: /planting|right/ })
  await form.getByRole('combobox', { name: 'Taxon' }).fill('Hosta sieb')
  await page
    .getByTitle(/^Hosta sieboldiana/)
    .first()
    .click()
  await form.getByLabel('Tag').fill('WRONG-1')
  await form.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(form).toBeHidden()
  await page.getByRole('link', { name: 'WRONG-1' }).click()
  await page.getByRole('heading', { level: 1, name: 'Hosta sieboldiana' }).waitFor()
  await page.getByRole('button', { name: 'Put it right' }).click()
  await form.getByLabel('Tag').fill('RIGHT-1')
  await form.getByLabel('How many').fill('4')
  await form.getByRole('button', { name: 'Put it right' }).click()
  await expect(page.locator('.screen-head')).toContainText('Tag RIGHT-1. 4 of 4 living')
  await expectAccessible(page, 'a story')

  // Its drift is drawn by measured sides, and stands on the plan as drawn.
  await page.getByRole('button', { name: 'Put it right' }).click()
  const [east, north] = await Promise.all(
    ['Metres east', 'Metres north'].map((name) => form.getByLabel(name).inputValue()),
  )
  await form.getByText('as drawn').click()
  await form.getByLabel('Metres east').fill(east!)
  await form.getByLabel('Metres north').fill(north!)
  await form.getByLabel('Metres north').press('Tab')
  for (const bearing of ['0', '90', '180']) {
    await form.getByLabel('Length of the next side').fill('1.2')
    await form.getByLabel('Bearing of the next side').fill(bearing)
    await form.getByLabel('Bearing of the next side').press('Tab')
    await form.getByRole('button', { name: 'Add side' }).press('Enter')
  }
  await expect(form.getByText('1.44 m²')).toBeVisible()
  const thirdSide = async (lengthM: string, bearing: string) => {
    await form.getByLabel('Length of side 3').fill(lengthM)
    await form.getByLabel('Bearing of side 3').fill(bearing)
    await form.getByLabel('Bearing of side 3').press('Tab')
  }
  await thirdSide('2.4', '260')
  await expect(form.getByRole('button', { name: 'Put it right' })).toBeDisabled()
  await expect(form.getByText(/The outline crosses itself/)).toBeVisible()
  await thirdSide('1.2', '180')
  await form.getByRole('button', { name: 'Put it right' }).click()
  await expect(form).toBeHidden()
  await goTo(page, 'Plan')
  const drift = page.locator('.plan-planting', { hasText: 'tag RIGHT-1' }).locator('polygon')
  await expect(drift).toHaveCount(1)
  await page.goBack()
  await page.getByRole('button', { name: 'It was never there' }).click()
  await page.getByRole('button', { name: 'Take it out' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Plants' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'RIGHT-1' })).toBeHidden()
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect(page.getByRole('link', { name: 'RIGHT-1' })).toBeVisible()

  await page
    .getByRole('link', { name: /^C-00\d$/ })
    .first()
    .click()
  const back = page.getByRole('button', { name: /^Take back the look of/ })
  await expect(back.first()).toBeVisible()
  const looks = await back.count()
  await back.last().click()
  await page.getByRole('button', { name: 'Take it back', exact: true }).click()
  await expect(back).toHaveCount(looks - 1)
  expect(errors).toEqual([])
})

test('a garden is put right, taken out by its name, and brought back', async ({ page }) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  // A garden of its own: the others are of other flows.
  await page.goto('/gardens/new')
  await page.getByRole('tab', { name: 'By hand' }).click()
  await page.getByLabel('Name of the garden').fill('For a moment')
  await page.getByLabel('Time zone').fill('Europe/London')
  await page.getByLabel(/Latitude/).fill('52.5')
  await page.getByLabel(/Longitude/).fill('-1.5')
  await page
    .getByRole('button', { name: /^(Start|Begin|Draw|Open|Add|Make)/ })
    .last()
    .click()
  await page.waitForURL(/\/g\/.*plan/)
  await goTo(page, 'Set-up')
  const itself = page.getByRole('region', { name: 'The garden' })
  await itself.getByLabel('Name', { exact: true }).fill('For an hour')
  await itself.getByRole('button', { name: 'Put it right' }).click()
  await expect(page.getByText('Put right; the light and the dates follow.')).toBeVisible()
  await expect(page.getByText(/^For an hour: 52\.5° N/)).toBeVisible()
  await page.getByRole('button', { name: 'Take this garden out' }).click()
  const take = page.getByRole('dialog').getByRole('button', { name: 'Take it out' })
  await expect(take).toBeDisabled()
  await page.getByRole('dialog').getByRole('textbox').fill('For an hour')
  await take.click()
  await page.waitForURL((url) => !url.pathname.includes('set-up'))
  await page.goto('/gardens/new')
  await expect(page.getByText(/For an hour, taken out/)).toBeVisible()
  await page
    .getByRole('button', { name: /Bring it back/ })
    .first()
    .click()
  await expect(page.getByText(/For an hour, taken out/)).toBeHidden()
  expect(errors).toEqual([])
})
