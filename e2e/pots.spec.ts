import { expect, test } from './practice.ts'
import { enterDemo, expectAccessible, expectNoSidewaysScroll, goTo, watchForErrors } from './steps.ts'

test('a pot looked at through its year, filled for winter, taken back, and watered while nobody is there', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Pots')
  await page.getByLabel('Garden').selectOption({ label: 'Almshouse Terrace' })

  await test.step('containers stand side by side, what cannot stay so is said', async () => {
    await page.getByRole('button', { name: /^Zinc tub/ }).click()
    await expect(page.getByRole('region', { name: 'Zinc tub' }).getByRole('alert')).toContainText(
      'No hole: drill one',
    )
    await expect(page.getByText('Ended: drowned.').first()).toBeVisible()
  })

  const trough = page.getByRole('region', { name: 'Wash house trough' })
  const inRow = page.getByRole('button', { name: /Wash house trough/ })
  await test.step('by keys alone: through the year to what stood in it in spring', async () => {
    await inRow.focus()
    await page.keyboard.press('Enter')
    await expect(inRow).toHaveAttribute('aria-pressed', 'true')
    await expect(trough.getByText(/A trough of wood, 1\.20.m by 32.cm/)).toBeVisible()
    await page.getByRole('slider', { name: 'Week of the year' }).fill('15')
    await expect(page.getByRole('img', { name: /Wash house trough with .*horned violet/ })).toBeVisible()
    await expectAccessible(page, 'pots')
  })

  const form = page.getByRole('form', { name: 'Fill Wash house trough' })
  await test.step('filled for winter: what comes out, what goes in, how they go together', async () => {
    await trough.getByRole('button', { name: 'Fill it anew' }).click()
    for (const kind of ['mealycup sage', 'trailing petunia'])
      await form
        .getByRole('radiogroup', { name: `What becomes of ${kind}` })
        .getByText('compost', { exact: true })
        .click()
    await form.getByLabel('How it ended').selectOption('went over')
    await form.getByRole('button', { name: 'Propose three' }).click()
    await expect(form.getByRole('img', { name: /^Proposed: / })).toHaveCount(3)
    await form.getByRole('button', { name: 'Take 3 kinds' }).first().click()
    await expect(form.getByLabel(/^How many/)).toHaveCount(3)
    for (const left of [2, 1, 0]) {
      await form.getByRole('button', { name: 'Not this' }).first().click()
      await expect(form.getByLabel(/^How many/)).toHaveCount(left)
    }
    const kind = form.getByRole('combobox', { name: 'Add a kind' })
    await kind.click()
    await kind.fill('Viola cornuta')
    await page.keyboard.press('Enter')
    await expect(form.getByLabel('How many horned violet')).toBeVisible()
    await form.getByLabel('How many horned violet').fill('6')
    await expect(
      page.getByRole('img', { name: 'Wash house trough as it would be on 20 April' }),
    ).toBeVisible()
    await expectAccessible(page, 'filling a pot')
    await form.getByRole('button', { name: 'Keep it as filled' }).click()
    await expect(trough.getByText('6 horned violet')).toBeVisible()
    await expect(trough.getByText('Winter 2026')).toBeVisible()
    await expect(trough.getByText(/mealycup sage/)).toBeHidden()
  })

  await test.step('and taken back as one change: all of it is as it was', async () => {
    await page.getByRole('button', { name: 'Take it back' }).click()
    await expect(trough.getByText(/mealycup sage/)).toBeVisible()
    await expect(trough.getByText('Winter 2026')).toBeHidden()
  })

  await test.step('two weeks of July with nobody there', async () => {
    await page.getByText('Watering', { exact: true }).click()
    await expect(page.getByRole('table', { name: 'Litres by day' })).toBeVisible()
    await page.getByLabel('Away from').fill('2026-07-10')
    await page.getByLabel('back on').fill('2026-07-24')
    await expect(page.getByText(/^Somebody comes every .*, \d+ times?\.$/)).toBeVisible()
    await expect(page.getByRole('table', { name: 'Each pot while nobody is there' })).toContainText(
      'drippers',
    )
    await expectAccessible(page, 'watering pots')
  })

  await test.step('on a phone nothing is pushed aside', async () => {
    await page.setViewportSize({ width: 390, height: 844 })
    await expectNoSidewaysScroll(page)
    await page.getByText('Pots', { exact: true }).last().click()
    await expectNoSidewaysScroll(page)
  })
  expect(errors).toEqual([])
})
