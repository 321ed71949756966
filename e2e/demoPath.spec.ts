import { readFileSync } from 'node:fs'
import { expect, test } from './practice.ts'
import { enterDemo, expectAccessible, expectNoSidewaysScroll, goTo, watchForErrors } from './steps.ts'

test('from the light that changed to a move that is done, in the demo', async ({ page }) => {
  const errors = watchForErrors(page)
  await enterDemo(page)

  await test.step('Light names who no longer fits and why', async () => {
    await expect(
      page.getByText(
        /Courtyard border has gained .* of sun a day, mostly because Storehouse went in February 2025/,
      ),
    ).toBeVisible()
    const row = page.getByRole('button', { name: /Astrantia major/ })
    await expect(row).toContainText('Storehouse went in February 2025')
    await row.click()
    await expect(row).toHaveAttribute('aria-pressed', 'true')
    await expectAccessible(page, 'light')
    await page.getByRole('link', { name: 'Weigh the verdict on it' }).click()
  })

  await test.step('the verdict gives reasons, a spot and a second choice, and is accepted', async () => {
    await expect(page.getByText('Move it.')).toBeVisible()
    await expect(page.getByText(/Storehouse went in February 2025: .* more sun a day/)).toBeVisible()
    // Whichever spot is put first, another can be had.
    await page
      .getByRole('radio', { name: /Back lane bed, .* of sun/ })
      .first()
      .check()
    await expect(page.getByText('Agree: move it to Back lane bed')).toBeVisible()
    await expectAccessible(page, 'verdicts')
    await page.getByRole('button', { name: 'Agree: move it' }).click()
    await expect(page.getByText('Recorded; its jobs are in the season plan.')).toBeVisible()
    await expect(page.getByRole('button', { name: /Astrantia major ✓ move/ })).toBeVisible()
  })

  await test.step('its jobs stand in explained windows on working days', async () => {
    await goTo(page, 'Season')
    await page.getByRole('button', { name: /^Lift Astrantia major from Courtyard border/ }).click()
    await expect(page.getByText(/Not after .*: the soil here usually drops below 6 °C about/)).toBeVisible()
    await expect(page.getByText(/Best from .*: the soil falls below 16 °C/)).toBeVisible()
    await expect(page.getByText('Before you start')).toBeVisible()
    await expectAccessible(page, 'season')
  })

  await test.step('they go out as a calendar file', async () => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Calendar file' }).click(),
    ])
    const text = readFileSync(await download.path(), 'utf8')
    expect(text).toMatch(/^BEGIN:VCALENDAR/)
    expect(text.match(/BEGIN:VEVENT/g)!.length).toBeGreaterThanOrEqual(5)
    expect(text.replace(/\r\n /g, '')).toContain(
      'Lift Astrantia major from Courtyard border and replant in Back lane bed',
    )
  })

  await test.step('they are recorded as really done', async () => {
    await page.getByRole('button', { name: /^Prepare Back lane bed for Astrantia major \d+ min/ }).click()
    await page.getByRole('button', { name: 'Record it done' }).click()
    await page.getByRole('button', { name: 'Record', exact: true }).click()
    await expect(page.getByRole('button', { name: /✓ Prepare Back lane bed/ })).toBeVisible()
    await page.getByRole('button', { name: /^Lift Astrantia major/ }).click()
    await page.getByRole('button', { name: 'Record it done' }).click()
    await page.getByLabel('Replanted alive').fill('6')
    await page.getByLabel('Note').fill('One piece was all roots.')
    await page.getByRole('button', { name: 'Record', exact: true }).click()
    await expect(page.getByRole('button', { name: /✓ Lift Astrantia major/ })).toBeVisible()
  })

  await test.step('and the history tells it, with tag and place', async () => {
    await page.getByRole('button', { name: /✓ Lift Astrantia major/ }).click()
    await page.getByRole('link', { name: 'Tag N-001' }).click()
    await expect(page.getByText(/6 of 7 living in Back lane bed since 14 September 2026/)).toBeVisible()
    const story = page.getByRole('list').filter({ hasText: 'Moved from' }).first()
    await expect(story).toContainText('7 planted in Courtyard border, bought.')
    await expect(story).toContainText('Proposed and accepted: move.')
    await expect(story).toContainText(
      /Moved from Courtyard border to Back lane bed: 6 of 7 replanted.*One piece was all roots\./,
    )
    await expectAccessible(page, 'story')
  })
  expect(errors).toEqual([])
})

test('then, now and the difference follow the as-of date, which the keyboard moves', async ({ page }) => {
  await enterDemo(page)
  const slider = page.getByRole('slider', { name: 'As-of date' })
  await expect(slider).toHaveAttribute('aria-valuetext', '14 September 2026')
  await slider.focus()
  await page.keyboard.press('PageDown')
  await expect(slider).toHaveAttribute('aria-valuetext', '12 October 2026')
  await expect(page).toHaveURL(/on=2026-10-12/)
  await page.getByRole('button', { name: 'A year earlier' }).click()
  await page.getByRole('button', { name: 'A year earlier' }).click()
  // In October 2024 the storehouse stands, so nothing has been gained yet.
  await expect(page.getByText(/has gained .* because Storehouse/)).toBeHidden()
  await page.getByRole('button', { name: 'Today', exact: true }).click()
  await page.getByText('Difference', { exact: true }).click()
  await expect(page.getByText('change in hours of direct sun a day')).toBeVisible()
  const plan = page.getByRole('application', { name: /Plan of Netmakers’ Yard/ })
  await plan.focus()
  await page.keyboard.press('ArrowUp')
  await expect(page.getByRole('heading', { name: /^A spot (in|off)/ })).toBeVisible()
})

test('what casts shade is pointed at on the plan, cut on a day, and the word taken back', async ({
  page,
}) => {
  await enterDemo(page)
  await page
    .locator('.plan-obstruction', { hasText: 'West boundary wall' })
    .locator('.plan-reach')
    .dispatchEvent('click')
  const panel = page.getByRole('region', { name: 'West boundary wall' })
  await expect(panel).toContainText('wall, 2.4 m high')
  await panel.getByRole('button', { name: 'Record what happened' }).click()
  await panel.getByRole('combobox', { name: 'What happened' }).click()
  await page.locator('.ant-select-item-option').getByText('Lowered to').click()
  await panel.getByRole('spinbutton', { name: 'Lowered to' }).fill('1.1')
  await panel.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(panel).toContainText('wall, 1.1 m high')
  await expect(panel).toContainText('lowered 14 September 2026')
  await panel.getByRole('button', { name: 'Take back the latest entry' }).click()
  await expect(panel).toContainText('wall, 2.4 m high')
})

test('crew record but do not decide; a keeper sees the one garden that is theirs', async ({ page }) => {
  await enterDemo(page, 'Tobin Reeve')
  await goTo(page, 'Verdicts')
  await expect(page.getByText('Only a head gardener of this garden decides.')).toBeVisible()
  await page.getByRole('button', { name: 'Sign out' }).click()
  await page.getByRole('button', { name: /Odile Fenn/ }).click()
  const gardens = page.getByRole('combobox', { name: 'Garden' }).getByRole('option')
  await expect(gardens).toHaveText(['Almshouse Terrace'])
  await page.goto('/g/00000000-0000-4000-8000-000000000000/light')
  await expect(page.getByText('This garden was not found in your gardens.')).toBeVisible()
})

test('every screen fits a 390 px phone and passes the accessibility check in the dark', async ({
  browser,
}) => {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    colorScheme: 'dark',
    reducedMotion: 'reduce',
  })
  const page = await context.newPage()
  await page.goto('/')
  await expectAccessible(page, 'sign-in')
  await enterDemo(page)
  for (const screen of ['Now', 'Walk', 'Light', 'Record', 'Verdicts', 'Season', 'Plants', 'Plan', 'Set-up']) {
    await goTo(page, screen)
    await expectNoSidewaysScroll(page)
    await expectAccessible(page, screen)
  }
  await context.close()
})
