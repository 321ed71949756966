import type { Page } from '@playwright/test'
import { expect, test } from './practice.ts'
import { enterDemo, expectAccessible, goTo, watchForErrors } from './steps.ts'

const plan = (page: Page) => page.getByRole('application', { name: /Plan of Netmakers’ Yard/ })
const picture = (page: Page) => page.locator('svg.plan image').first().getAttribute('href')
const choose = (page: Page, name: string) =>
  page.locator('.plan-obstruction', { hasText: name }).first().dispatchEvent('click')

test('what if the alder were gone: the light follows, the plantings are named, the what-if is kept and compared', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await expect(page.getByText(/Courtyard border has gained/)).toBeVisible()
  await expect(page.getByText('working out the light')).toBeHidden()
  const asItStands = await picture(page)
  await choose(page, 'Alder 6')
  const panel = page.getByRole('region', { name: 'Alder 6' })

  await test.step('the light follows the slider by keyboard', async () => {
    const height = panel.getByRole('slider', { name: 'Try: Height' })
    await height.focus()
    for (let i = 0; i < 30; i++) await page.keyboard.press('ArrowLeft')
    await expect.poll(() => picture(page)).not.toBe(asItStands)
    await expect(page.getByRole('region', { name: 'What if' })).toContainText(/Alder 6 6\.\d m high/)
  })

  await test.step('gone, it frees plantings, by name', async () => {
    await panel.getByRole('checkbox').check()
    const effects = page.getByRole('region', { name: 'What if' })
    await expect(effects).toContainText('Alder 6 gone')
    await expect(effects.getByRole('button', { name: /Lavandula angustifolia.*fits again/ })).toBeVisible()
    await expectAccessible(page, 'what if')
  })

  await test.step('it is kept under a name beside things as they stand', async () => {
    await page.getByText('What ifs', { exact: true }).click()
    await page.getByRole('textbox', { name: 'Name of this what-if' }).fill('Fell the end alder')
    await page.getByRole('button', { name: 'Keep', exact: true }).click()
    const table = page.getByRole('table', { name: 'What-ifs compared' })
    await expect(table.getByRole('row', { name: /As it stands/ })).toBeVisible()
    await expect(table.getByRole('row', { name: /Fell the end alder/ })).toContainText(/\d+ come back/)
  })

  await test.step('put back, the light is as it was', async () => {
    await page.getByRole('button', { name: 'Put all back' }).click()
    await expect.poll(() => picture(page)).toBe(asItStands)
  })
  expect(errors).toEqual([])
})

test('a moment’s shadows run through the day, then and now side by side', async ({ page }) => {
  await enterDemo(page)
  await expect(page.getByText(/Courtyard border has gained/)).toBeVisible()
  await page.getByText('Moment', { exact: true }).click()
  await page.getByText('Both', { exact: true }).click()
  await expect(plan(page)).toHaveCount(2)
  // The storehouse throws a shadow on the left, where it still stands, and none on the right.
  const shadows = (k: number) => plan(page).nth(k).locator('.plan-shadows > g')
  await expect.poll(async () => (await shadows(0).count()) - (await shadows(1).count())).toBe(1)
  const time = page.getByRole('slider', { name: 'Time of day' })
  await time.focus()
  await page.keyboard.press('Home')
  const clock = page.getByText(/on the clock/)
  await expect(clock).toContainText('in the east')
  await page.getByRole('button', { name: 'Let it run' }).click()
  await expect(clock).not.toContainText('06:35')
  await page.getByRole('button', { name: 'Stop' }).click()
})

test('a spot shows its sky, and what takes its sun in a month', async ({ page }) => {
  await enterDemo(page)
  await expect(page.getByText(/Courtyard border has gained/)).toBeVisible()
  await page.getByRole('button', { name: /Fatsia japonica/ }).click()
  await page.getByRole('button', { name: 'Its sky and its year' }).click()
  const panel = page.getByRole('heading', { name: /A spot in Studio door/ }).locator('../..')
  await expect(panel.getByRole('img', { name: /The sky from this spot/ })).toBeVisible()
  await expect(panel).toBeInViewport()
  await expect(panel).toContainText('0.5 m above the ground')
  await panel.getByRole('button', { name: 'What takes the sun in month 12' }).press('Enter')
  await expect(panel).toContainText(/December: .* h of 7½ h\. Taken by/)
  await expectAccessible(page, 'a spot')
})

test('readings say what nobody recorded; it goes onto the plan with its day', async ({ page }) => {
  await enterDemo(page)
  await goTo(page, 'Now')
  await expect(
    page.getByRole('heading', { name: /Neighbour’s cypress hedge stands lower than drawn/ }),
  ).toBeVisible()
  await expectAccessible(page, 'now')
  await page.getByRole('link', { name: 'See it on the plan' }).click()
  await page.getByText('Readings', { exact: true }).click()

  await test.step('a reading is taken at a marked spot, and taken back', async () => {
    await plan(page).focus()
    await page.keyboard.press('ArrowUp')
    await page.getByLabel('When it was seen').fill('13 Sep 2026, 12:00')
    await page.keyboard.press('Enter')
    await page.getByRole('button', { name: 'Dappled', exact: true }).click()
    await expect(page.getByText('Dappled recorded.')).toBeVisible()
    await expect(page.getByText(/27 looks by eye, the last 13 Sept/)).toBeVisible()
    await page.getByRole('button', { name: 'Take it back' }).first().click()
    await expect(page.getByText(/26 looks by eye/)).toBeVisible()
  })

  await test.step('a file of another time zone is refused in words, and a good one read', async () => {
    const files = page.getByRole('region', { name: 'Read a light logger' }).locator('input[type=file]')
    const line = (hour: number) =>
      `2026-09-01T${String(hour).padStart(2, '0')}:00Z,${hour > 5 && hour < 18 ? 40000 : 0}`
    const csv = (shift: number) =>
      ['time,lux', ...Array.from({ length: 24 }, (_, h) => line(h)).map((l) => shifted(l, shift))].join('\n')
    await files.setInputFiles({ name: 'far.csv', mimeType: 'text/csv', buffer: Buffer.from(csv(4)) })
    await expect(page.getByText(/h too late for clocks of Europe\/London/).first()).toBeVisible()
    await files.setInputFiles({ name: 'near.csv', mimeType: 'text/csv', buffer: Buffer.from(csv(0)) })
    await expect(page.getByText('The log is read.')).toBeVisible()
    await expect(page.getByRole('button', { name: 'near.csv' })).toBeVisible()
  })

  await test.step('the believed change is put on the plan', async () => {
    await page.getByRole('button', { name: 'Put it on the plan' }).click()
    await expect(page.getByText('On the plan from 29 August 2026.')).toBeVisible()
    await choose(page, 'Neighbour’s cypress hedge')
    await expect(page.getByRole('region', { name: 'Neighbour’s cypress hedge' })).toContainText(
      'measured anew 29 August 2026',
    )
  })
})

const shifted = (line: string, hours: number): string => {
  const [time, lux] = line.split(',')
  return `${new Date(Date.parse(time!) + hours * 3_600_000).toISOString().slice(0, 16)}Z,${lux}`
}

test('the years ahead name who leaves the light, and an ailing tree is a change waiting', async ({
  page,
}) => {
  await enterDemo(page)
  await page.getByText('Ahead', { exact: true }).click()
  const row = page.getByRole('button', { name: /Rosa rugosa leaves its light/ })
  await expect(row).toContainText(/Alder \d has grown/)
  await row.click()
  await expect(page.getByRole('link', { name: /Weigh the verdict as of 20\d\d/ })).toBeVisible()
  await page.getByRole('combobox', { name: 'Garden' }).selectOption('Cliff Lane')
  await page.getByText('Ahead', { exact: true }).click()
  await expect(page.getByText('In failing health: a change waiting.')).toBeVisible()
})
