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

test('two pots alike through a full year: put down together, filled, watered by what is found, swapped, refreshed, and told of', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await page.getByLabel('Garden').selectOption({ label: 'Almshouse Terrace' })

  await test.step('put on the plan at once and numbered', async () => {
    await goTo(page, 'Plan')
    await page.getByRole('button', { name: 'Add to the plan' }).click()
    await page.getByRole('combobox', { name: 'What', exact: true }).selectOption('container')
    await page.getByLabel('Name', { exact: true }).fill('Well pot')
    await page.getByLabel('Metres east').fill('9')
    await page.getByLabel('Metres north').fill('4')
    await page.getByLabel('Metres north').press('Tab')
    await page.getByLabel('How many alike').fill('2')
    await page.getByLabel('How many alike').press('Tab')
    await expect(page.getByText('Well pot 1 to Well pot 2, in a row')).toBeVisible()
    await page.getByRole('button', { name: 'Put it on the plan' }).click()
    await expect(page.getByRole('button', { name: /^Well pot 2 container/ })).toBeVisible()
  })

  const pot = page.getByRole('region', { name: 'Well pot 1' })
  const form = page.getByRole('form', { name: 'Fill Well pot 1' })
  const add = async (typed: string, common: string, count: string) => {
    const kind = page.getByRole('combobox', { name: 'Add a kind' })
    await kind.click()
    await kind.fill(typed)
    await page.keyboard.press('Enter')
    await page.getByLabel(`How many ${common}`).fill(count)
  }
  const fillOn = async (day: string, name: string) => {
    await page.getByLabel('On', { exact: true }).fill(day)
    await page.getByLabel('Called').fill(name)
  }

  await test.step('autumn: both filled alike, the second with what the first was', async () => {
    await goTo(page, 'Pots')
    await page.getByRole('button', { name: /^Well pot 1/ }).click()
    await pot.getByRole('button', { name: 'Fill it', exact: true }).click()
    await add('Viola cornuta', 'horned violet', '5')
    await fillOn('2025-10-04', 'Winter 2025')
    await form.getByText('Others alike').click()
    await form.getByLabel('Well pot 2').check()
    await expect(form.getByRole('heading', { name: /^Alike in Well pot 2/ })).toBeVisible()
    await form.getByRole('button', { name: 'Keep it, then Well pot 2' }).click()
    const other = page.getByRole('form', { name: 'Fill Well pot 2' })
    await expect(other.getByLabel('How many horned violet')).toHaveValue('5')
    await page.getByLabel('On', { exact: true }).fill('2025-10-04')
    await other.getByRole('button', { name: 'Keep it as filled' }).click()
    await expect(page.getByRole('region', { name: 'Well pot 2' }).getByText('5 horned violet')).toBeVisible()
  })

  await test.step('spring: swapped for summer, with how the winter went', async () => {
    await page.getByRole('button', { name: /^Well pot 1/ }).click()
    await pot.getByRole('button', { name: 'Fill it anew' }).first().click()
    await form
      .getByRole('radiogroup', { name: 'What becomes of horned violet' })
      .getByText('compost', { exact: true })
      .click()
    await form.getByLabel('How it ended').selectOption('went over')
    await form.getByLabel('How it went').fill('Flowered into May.')
    await form.getByText('for summer', { exact: true }).click()
    await add('Tagetes patula', 'French marigold', '4')
    await fillOn('2026-05-23', 'Summer 2026')
    await form.getByRole('button', { name: 'Keep it as filled' }).click()
    await expect(pot.getByText('4 French marigold')).toBeVisible()
    await expect(pot.getByText('Ended: went over. Flowered into May.')).toBeVisible()
  })

  await test.step('what is found at it corrects its water, and is taken back', async () => {
    await pot.getByRole('button', { name: 'Watered through' }).click()
    await expect(pot.getByText(/watered through, Marla Quill/)).toBeVisible()
    await pot.getByRole('group', { name: 'All of it, in stars' }).getByRole('button', { name: '4' }).click()
    const rated = pot.getByRole('listitem').filter({ hasText: '4 of 5, all of it together' })
    await expect(rated).toBeVisible()
    await rated.getByRole('button', { name: 'by mistake' }).click()
    await expect(rated).toBeHidden()
  })

  await test.step('the week slider goes from the winter’s fill to the summer’s', async () => {
    const week = page.getByRole('slider', { name: 'Week of the year' })
    await week.fill('14')
    await expect(page.getByRole('img', { name: 'Well pot 1 with horned violet' })).toBeVisible()
    await week.fill('30')
    await expect(page.getByRole('img', { name: 'Well pot 1 with French marigold' })).toBeVisible()
  })

  await test.step('where it would do best is looked for', async () => {
    await pot.getByRole('button', { name: 'Look through the garden' }).click()
    await expect(pot.getByText(/^Where it stands/)).toBeVisible()
    await expectAccessible(page, 'a pot with its year')
  })

  await test.step('dragged about the plan its light goes with it', async () => {
    await goTo(page, 'Plan')
    await page.getByRole('button', { name: /^Well pot 1 / }).click()
    const light = page.getByText(/^There: /)
    const before = (await light.textContent())!
    const grip = (await page.locator('.draft-grip').boundingBox())!
    await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2)
    await page.mouse.down()
    for (let i = 1; i <= 12; i++) await page.mouse.move(grip.x - 12 * i, grip.y + 8 * i)
    await expect(light).not.toHaveText(before)
    await page.mouse.up()
    await page.getByRole('button', { name: 'Cancel' }).click()
    await goTo(page, 'Pots')
    await page.getByRole('button', { name: /Well pot 1/ }).click()
  })

  await test.step('autumn again: what is proposed leads to the next fill, and the year is on record', async () => {
    await pot.getByRole('button', { name: 'Fill it anew' }).first().click()
    await form
      .getByRole('radiogroup', { name: 'What becomes of French marigold' })
      .getByText('compost', { exact: true })
      .click()
    await form.getByLabel('How it ended').selectOption('went over')
    await add('Viola cornuta', 'horned violet', '5')
    await fillOn('2026-09-13', 'Winter 2026')
    await form.getByRole('button', { name: 'Keep it as filled' }).click()
    await expect(pot.getByText('5 horned violet')).toBeVisible()
    await expect(pot.locator('.pot-fills li b')).toHaveText(['Winter 2026', 'Summer 2026', 'Winter 2025'])
  })

  await test.step('its work stands in the round, and the line of pots is told', async () => {
    await page.getByText('Work', { exact: true }).click()
    await expect(page.getByText(/^\d+ jobs? until 12 Oct/)).toBeVisible()
    await expectAccessible(page, 'work at the pots')
    await page.getByText('Years', { exact: true }).click()
    await expect(page.getByRole('table', { name: 'Pots by season' })).toBeVisible()
    await expectAccessible(page, 'the line of pots')
    await page.setViewportSize({ width: 390, height: 844 })
    await expectNoSidewaysScroll(page)
  })

  await test.step('all pots go out as a file', async () => {
    await page.setViewportSize({ width: 1280, height: 800 })
    await goTo(page, 'Set-up')
    const downloading = page.waitForEvent('download')
    await page.getByRole('link', { name: 'containers.csv' }).click()
    expect((await downloading).suggestedFilename()).toBe('containers.csv')
  })
  expect(errors).toEqual([])
})
