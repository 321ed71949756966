import { expect, test } from './practice.ts'
import { enterDemo, expectAccessible, expectNoSidewaysScroll, goTo, watchForErrors } from './steps.ts'

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

test('a bed is cut in two by keys alone, kept, and who did it is told under Changes', async ({ page }) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Plan')
  const parts = page.getByRole('complementary', { name: 'Parts of the plan' })
  const press = async (name: string | RegExp) => {
    await parts
      .getByRole('button', { name, exact: typeof name === 'string' })
      .first()
      .press('Enter')
  }
  await press(/^Back lane bed bed/)
  await expect(parts.getByLabel('Length of side 1')).toHaveValue('21.2')
  await press('1')
  await press('Another corner after 1')
  await press('4')
  await press('Another corner after 4')
  await press('Cut in two from corner 5')
  await expect(parts.getByText('Choose the corner to cut to, from corner 5.')).toBeVisible()
  await press('2')
  await expect(parts.getByLabel('Length of side 1')).toHaveValue('10.6')
  await expect(page.locator('.draft-other')).toHaveCount(1)
  // The corner in hand went with the other half: nothing is offered of it.
  await expect(parts.getByRole('button', { name: 'Cut in two from a corner' })).toBeDisabled()
  await press('It was always so')
  await expect(page.getByText(/: the plan is right\.$/)).toBeVisible()
  await expect(parts.getByRole('button', { name: /^Back lane bed, second part/ })).toBeVisible()
  await page.getByText('Changes', { exact: true }).click()
  await expect(parts.getByText(/Marla Quill/).first()).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).press('Enter')
  await expect(page.getByText('Taken back.')).toBeVisible()
  await page.getByText('Parts', { exact: true }).click()
  await expect(parts.getByRole('button', { name: /^Back lane bed, second part/ })).toBeHidden()
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
  await page.getByRole('button', { name: 'Cancel' }).click()
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

test('what happened to a tree is taken back and done again with the plan’s own Undo', async ({ page }) => {
  await enterDemo(page)
  await goTo(page, 'Plan')
  const parts = page.getByRole('complementary', { name: 'Parts of the plan' })
  await parts.getByRole('button', { name: /^Serviceberry/ }).click()
  const panel = page.getByRole('region', { name: 'Serviceberry' })
  await panel.getByRole('combobox', { name: 'What happened' }).click()
  await page.getByTitle('Limbed up to').click()
  await panel.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(page.getByText('Serviceberry: recorded.')).toBeVisible()
  const changes = async () => {
    await page.getByText('Changes', { exact: true }).click()
    const said = await parts.getByRole('listitem').first().innerText()
    await page.getByText('Parts', { exact: true }).click()
    return said
  }
  await expect.poll(changes).toMatch(/Serviceberry: limbed up to [\d.]+ m on .*Take back/s)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByText('Taken back.')).toBeVisible()
  await expect.poll(changes).toMatch(/Serviceberry: limbed up to .*, taken back\./)
  await page.getByRole('button', { name: 'Redo' }).click()
  await expect(page.getByText('Done again.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo' }).click()
})

test('corners are taped on a phone without a connection, a slip is named, and a curved bed is drawn through them', async ({
  page,
  context,
}) => {
  await page.setViewportSize({ width: 390, height: 800 })
  await enterDemo(page)
  await goTo(page, 'Plan')
  await page.getByRole('link', { name: 'By tape' }).click()
  await page.getByRole('heading', { level: 1, name: 'By tape' }).waitFor()
  const measuring = page.getByRole('region', { name: 'What was measured' })
  const known = page.getByLabel('A corner on the plan')
  const corners = (await known.locator('option').allInnerTexts())
    .filter((c) => /^Sail loft/.test(c))
    .slice(0, 3)
  for (const corner of corners) await known.selectOption(corner)
  await context.setOffline(true)
  const at = await page
    .getByRole('region', { name: 'Points on the plan' })
    .locator('small')
    .allInnerTexts()
    .then((said) => said.map((s) => s.match(/-?[\d.]+/g)!.map(Number) as [number, number]))
  const points: [number, number][] = [0, 1, 2, 3].map((i) => [
    at[0]![0] - 3 - 2 * (i % 2),
    at[0]![1] - 2 - 1.5 * Math.floor(i / 2) - 0.3 * i,
  ])
  const tape = async (from: string, to: string, metres: number) => {
    await measuring.getByLabel('From', { exact: true }).selectOption(from)
    await measuring.getByLabel('To', { exact: true }).selectOption(to)
    await measuring.getByLabel('Length').fill(metres.toFixed(2))
    await measuring.getByRole('button', { name: 'Add' }).click()
  }
  const apart = ([x, y]: [number, number], [u, v]: [number, number]) => Math.hypot(x - u, y - v)
  for (const [i, p] of points.entries())
    for (const [k, corner] of corners.entries())
      // One of them half a metre too long.
      await tape(corner, `P${i + 1}`, apart(at[k]!, p) + (i === 1 && k === 2 ? 0.5 : 0))
  await expect(
    page.getByText(/does not fit the rest\. Measure it again|cannot be told apart\. Measure them again/),
  ).toBeVisible()
  await page.getByText(/^12 measured$/).click()
  await page.getByRole('button', { name: new RegExp(`^Take out ${corners[2]} to P2`) }).click()
  await tape(corners[2]!, 'P2', apart(at[2]!, points[1]!))
  await expect(page.getByText(/does not fit|cannot be told apart/)).toHaveCount(0)
  const found = page.getByRole('list', { name: 'Points found' }).getByRole('listitem')
  await expect(found).toHaveCount(4)
  await expect(found.first()).toHaveText(/within \d+ cm, 95 times in 100/)
  await context.setOffline(false)
  // It was kept on the device.
  await page.reload()
  await expect(found).toHaveCount(4)
  await page.getByRole('button', { name: 'A curved bed through them' }).click()
  await expect(page.locator('.draft-handle circle').first()).toBeVisible()
  await expectNoSidewaysScroll(page)
})
