import { expect, test } from './practice.ts'
import { enterDemo, expectAccessible, goTo, watchForErrors } from './steps.ts'

test('a bed is reshaped with the mouse, put right, and that taken back and done again', async ({ page }) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Plan')
  const parts = page.getByRole('complementary', { name: 'Parts of the plan' })
  await parts.getByRole('button', { name: / bed$/ }).first().click()
  await page.getByRole('button', { name: 'Look closer at it' }).click()
  const corner = page.locator('.draft-handle rect').first()
  await expect(corner).toBeVisible()
  const length = page.getByLabel('Length of side 1')
  const before = await length.inputValue()
  const box = (await corner.boundingBox())!
  // Outwards, whichever way that is: every plant stays inside.
  const middle = (await page.locator('.draft-shape').first().boundingBox())!
  const out = (v: number, from: number, size: number) => (v < from + size / 2 ? -24 : 24)
  await page.mouse.move(box.x + 5, box.y + 5)
  await page.mouse.down()
  await page.mouse.move(
    box.x + 5 + out(box.x, middle.x, middle.width),
    box.y + 5 + out(box.y, middle.y, middle.height),
    { steps: 6 },
  )
  await page.mouse.up()
  await expect(length).not.toHaveValue(before)
  const after = await length.inputValue()
  await expectAccessible(page, 'a bed being reshaped')
  await page.getByRole('button', { name: 'It was always so' }).click()
  await expect(page.getByText(/: the plan is right\.$/)).toBeVisible()

  const reopened = async () => {
    await parts.getByRole('button', { name: / bed$/ }).first().click()
    return length.inputValue()
  }
  expect(await reopened()).toBe(after)
  await page.getByRole('button', { name: 'Close', exact: true }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('Taken back.')).toBeVisible()
  expect(await reopened()).toBe(before)
  await page.getByRole('button', { name: 'Close', exact: true }).click()
  await page.getByRole('button', { name: 'Redo' }).click()
  await expect(page.getByText('Done again.')).toBeVisible()
  expect(await reopened()).toBe(after)
  await page.getByRole('button', { name: 'Close', exact: true }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  expect(errors).toEqual([])
})

test('a bed too small for its plants says which, and they are put inside before it is kept', async ({
  page,
}) => {
  await enterDemo(page)
  await goTo(page, 'Plan')
  const parts = page.getByRole('complementary', { name: 'Parts of the plan' })
  await parts.getByRole('button', { name: / bed$/ }).first().click()
  // The last corner onto the one before: half of the bed is gone.
  const plan = page.getByRole('application')
  await plan.focus()
  await plan.press('.')
  for (let i = 0; i < 8; i++) await plan.press('Shift+ArrowRight')
  const outside = page.getByRole('region', { name: 'Plants outside' })
  await expect(outside).toBeVisible()
  await expect(page.getByRole('button', { name: 'It was always so' })).toBeDisabled()
  await outside.getByRole('button', { name: 'Put them just inside' }).click()
  await expect(outside).toBeHidden()
  await expect(page.getByRole('button', { name: 'It was always so' })).toBeEnabled()
  await page.getByRole('button', { name: 'Leave it' }).click()
})

test('plants come in by the armful, are corrected many at once, and a list is matched line by line', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Plants')
  await page.getByRole('button', { name: 'Add plants' }).click()
  const typed = page.getByLabel('How many of what')
  for (const [line, tells] of [
    ['5 conef', '5 Echinacea purpurea'],
    ['3 bee balm', '3 Monarda didyma'],
  ] as const) {
    await typed.fill(line)
    await page.getByRole('list', { name: 'It may be' }).waitFor()
    await typed.press('Enter')
    await expect(page.getByRole('list', { name: 'Entered' })).toContainText(tells)
  }
  await expectAccessible(page, 'plants by the armful')
  await page.getByText('a list', { exact: true }).click()
  await page.getByLabel('The list').fill('4 daylily\n2 blurple thing')
  const read = page.getByRole('table', { name: 'As it was read' })
  await expect(read.getByRole('row')).toHaveCount(3)
  await expect(read.getByText('not found')).toBeVisible()
  await page.getByRole('button', { name: /^Enter 1 planting/ }).click()
  await expect(page.getByText('1 planting entered.').first()).toBeVisible()
  await page.getByRole('button', { name: 'Done' }).click()

  await page.getByRole('button', { name: 'Put many right' }).click()
  await page
    .getByRole('textbox', { name: /^When of/ })
    .first()
    .fill('before 2015')
  await page
    .getByRole('spinbutton', { name: /^How many of/ })
    .nth(1)
    .fill('9')
  await page
    .getByRole('spinbutton', { name: /^How many of/ })
    .nth(1)
    .press('Tab')
  await page.getByRole('button', { name: 'Put 2 plantings right' }).click()
  await expect(page.getByText('2 plantings put right.')).toBeVisible()
  await expect(page.getByRole('cell', { name: 'before 2015' }).first()).toBeVisible()
  expect(errors).toEqual([])
})
