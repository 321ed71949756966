import jsQR from 'jsqr'
import sharp from 'sharp'
import { expect, test } from './practice.ts'
import { enterDemo, expectAccessible, expectNoSidewaysScroll, goTo, watchForErrors } from './steps.ts'

const picture = () =>
  sharp({ create: { width: 300, height: 200, channels: 3, background: '#5f7c50' } })
    .jpeg()
    .toBuffer()

test('a plant nobody knows is entered with a photo, and named later; one of one’s own is made on the spot', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Plants')
  await page.getByRole('button', { name: 'Add plants' }).click()
  const dialog = page.getByRole('dialog', { name: 'Add plants' })
  const typed = dialog.getByLabel('How many of what')
  await typed.fill('3 zzkwq')
  await dialog.getByRole('button', { name: 'Enter 3, to be named later' }).click()
  const entered = dialog.getByRole('list', { name: 'Entered' }).getByRole('listitem')
  await expect(entered).toHaveText(/: 3 Unknown plant in/)
  const tag = /^(\S+):/.exec(await entered.innerText())![1]!
  await entered
    .locator('input[type=file]')
    .setInputFiles({ name: 'plant.jpg', mimeType: 'image/jpeg', buffer: await picture() })
  await expect(page.getByText('Photo kept.')).toBeVisible()

  await typed.fill('2 zzkwq')
  await dialog.getByRole('button', { name: 'Make “zzkwq” a kind of your own' }).click()
  const kind = page.getByRole('dialog', { name: 'A kind of your own' })
  await kind.getByLabel('Much like').fill('plantain lily')
  await page
    .getByRole('option', { name: /^Hosta/ })
    .first()
    .waitFor({ state: 'attached' })
  await kind.getByLabel('Much like').press('Enter')
  await expect(kind.getByText(/is taken to want what Hosta/)).toBeVisible()
  await kind.getByRole('button', { name: 'Keep it' }).click()
  await expect(entered.first()).toHaveText(/: 2 Zzkwq in/)
  await dialog.getByRole('button', { name: 'Done' }).click()

  const toBeNamed = page.getByRole('region', { name: 'To be named' })
  await expect(toBeNamed.getByRole('img', { name: `Tag ${tag}` })).toBeVisible()
  await expectAccessible(page, 'plants to be named')
  const select = toBeNamed.getByLabel(`What ${tag} is`)
  await select.fill('coneflower')
  await page
    .getByRole('option', { name: /^Echinacea/ })
    .first()
    .waitFor({ state: 'attached' })
  await select.press('Enter')
  await expect(page.getByText(new RegExp(`^${tag} is Echinacea`))).toBeVisible()
  await expect(toBeNamed).toHaveCount(0)
  const row = page.getByRole('row').filter({ has: page.getByRole('link', { name: tag, exact: true }) })
  await expect(row).toHaveText(/Echinacea/)
  expect(errors).toEqual([])
})

test('a label’s code, read off the screen, opens the planting on a phone', async ({ page, browser }) => {
  await enterDemo(page)
  await goTo(page, 'Plants')
  await page.getByRole('link', { name: 'Labels' }).click()
  const label = page.getByRole('list', { name: 'Labels' }).getByRole('listitem').nth(3)
  const tag = await label.locator('b').innerText()
  await page.getByRole('button', { name: 'None' }).click()
  await expect(page.getByRole('button', { name: 'Print 0 labels' })).toBeDisabled()
  await label.getByRole('checkbox').check()
  await expect(page.getByRole('button', { name: 'Print 1 label' })).toBeEnabled()
  const code = await label.getByRole('img').screenshot()
  const { data, info } = await sharp(code).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  const address = jsQR(new Uint8ClampedArray(data), info.width, info.height)!.data
  // Only what is chosen is on paper.
  await page.emulateMedia({ media: 'print' })
  await expect(page.locator('.plant-label').filter({ visible: true })).toHaveCount(1)
  const phone = await browser.newContext({
    viewport: { width: 390, height: 800 },
    hasTouch: true,
    storageState: await page.context().storageState(),
  })
  const opened = await phone.newPage()
  await opened.goto(address)
  await expect(opened.getByText(`. Tag ${tag}.`)).toBeVisible()
  await expectNoSidewaysScroll(opened)
  await phone.close()
})

test('a look and past work are written down where they are missed', async ({ page }) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Plants')
  await page.getByRole('link', { name: 'N-004', exact: true }).click()
  const story = page.getByRole('region', { name: 'Its story' })
  await page.getByText('A past look').click()
  const day = page.getByLabel('Day of the look')
  await day.fill('3 Jun 2022')
  await day.press('Enter')
  await page.getByLabel('How it did').selectOption('2')
  await page.getByLabel('In words').fill('From the old notebook.')
  await page.getByRole('button', { name: 'Keep the look' }).click()
  await expect(page.getByText('Kept as a look of that day.')).toBeVisible()
  await expect(story.getByText(/From the old notebook/)).toBeVisible()

  await page.getByText('Past work').click()
  await page.getByLabel('Work that was done').selectOption('divide')
  const worked = page.getByLabel('Day of the work')
  await worked.fill('10 Apr 2023')
  await worked.press('Enter')
  await page.getByRole('button', { name: 'Write it down' }).click()
  await expect(page.getByText(/In the record\. What is due next/)).toBeVisible()
  await expect(story.getByText(/^Divide Hosta sieboldiana: done\./)).toBeVisible()
  // Of a day before it was planted nothing is kept, and why is said.
  await worked.fill('10 Apr 2011')
  await worked.press('Enter')
  await page.getByRole('button', { name: 'Write it down' }).click()
  await expect(page.getByText(/was planted on .* after this day/)).toBeVisible()

  await goTo(page, 'Season')
  await page.getByRole('button', { name: 'Past work' }).click()
  const dialog = page.getByRole('dialog', { name: 'Past work' })
  await dialog.getByLabel('Work that was done').selectOption('mulch')
  await dialog.getByLabel('Minutes it took').fill('90')
  await expectAccessible(page, 'past work')
  await dialog.getByRole('button', { name: 'Write it down' }).click()
  await expect(dialog).toHaveCount(0)
  expect(errors).toEqual([])
})
