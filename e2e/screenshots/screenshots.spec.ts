import { test, type Page } from '@playwright/test'
import { join } from 'node:path'
import { DEMO } from '../playwright.config.ts'
import { enterDemo, goTo } from '../steps.ts'

const folder = join(import.meta.dirname, '..', '..', 'docs', 'screenshots')

async function shoot(page: Page, name: string): Promise<void> {
  await page.mouse.move(0, 0)
  await page.evaluate(() => document.fonts.ready)
  await page.getByText('working out the light').waitFor({ state: 'hidden', timeout: 60_000 })
  await page.locator('.ant-message-notice').first().waitFor({ state: 'hidden', timeout: 20_000 })
  await page.screenshot({ path: join(folder, `${name}.png`) })
}

test('one picture of each main view', async ({ page, browser }) => {
  test.setTimeout(300_000)
  await enterDemo(page, DEMO)
  await page.getByRole('button', { name: /Rodgersia podophylla/ }).click()
  await shoot(page, 'light')
  await page.getByText('Difference', { exact: true }).click()
  await page.waitForTimeout(1000)
  await shoot(page, 'light-difference')
  await page.getByText('Moment', { exact: true }).click()
  await page.getByText('Both', { exact: true }).click()
  await page.waitForTimeout(1000)
  await shoot(page, 'light-moment')
  await page.getByText('Growing season', { exact: true }).click()
  await page.getByText('Now', { exact: true }).last().click()
  await page.getByRole('button', { name: 'Its sky and its year' }).click()
  await page.getByRole('img', { name: /The sky from this spot/ }).waitFor()
  await shoot(page, 'light-sky')
  await page.locator('.plan-obstruction', { hasText: 'Alder 6' }).first().dispatchEvent('click')
  await page.getByRole('region', { name: 'Alder 6' }).getByRole('checkbox').check()
  await page.getByRole('region', { name: 'What if' }).getByText('fits again').first().waitFor()
  await shoot(page, 'light-what-if')
  await page.getByRole('button', { name: 'Put all back' }).click()
  await page.getByRole('region', { name: 'Alder 6' }).getByRole('button', { name: 'Close' }).click()
  await page.getByText('Readings', { exact: true }).click()
  await page.getByRole('button', { name: 'Put it on the plan' }).waitFor({ timeout: 60_000 })
  await shoot(page, 'light-readings')
  await goTo(page, 'Now')
  await page.getByText(/cypress hedge stands lower/).waitFor({ timeout: 60_000 })
  await shoot(page, 'now')
  await goTo(page, 'Verdicts')
  await page.getByRole('button', { name: /Rodgersia podophylla/ }).click()
  await shoot(page, 'verdicts')
  for (const name of ['Rodgersia podophylla', 'Astrantia major', 'Hosta sieboldiana', 'Hakonechloa macra']) {
    await page.getByRole('button', { name: new RegExp(`^${name}`) }).click()
    await page.getByRole('button', { name: 'Accept: move' }).click()
    await page.getByRole('button', { name: new RegExp(`^${name} ✓`) }).waitFor()
  }
  await goTo(page, 'Season')
  await page.getByRole('button', { name: /^Lift Rodgersia podophylla from .* \d+ min$/ }).click()
  await shoot(page, 'season')
  await goTo(page, 'Plants')
  await shoot(page, 'plants')
  await page.getByRole('link', { name: 'N-002' }).click()
  await page.getByRole('heading', { level: 1, name: 'Rodgersia podophylla' }).waitFor()
  await shoot(page, 'story')
  await goTo(page, 'Plan')
  await shoot(page, 'plan')
  await goTo(page, 'Set-up')
  await shoot(page, 'set-up')
  const phone = await browser.newPage({ viewport: { width: 390, height: 844 }, reducedMotion: 'reduce' })
  await enterDemo(phone, DEMO)
  await goTo(phone, 'Season')
  await shoot(phone, 'season-phone')
  await goTo(phone, 'Light')
  await phone.getByText('Readings', { exact: true }).click()
  await phone
    .getByRole('button', { name: /Long border,/ })
    .first()
    .click()
  await phone.getByRole('heading', { name: 'What is the light here?' }).scrollIntoViewIfNeeded()
  await shoot(phone, 'light-phone')
  const dark = await browser.newPage({
    viewport: { width: 1280, height: 800 },
    colorScheme: 'dark',
    reducedMotion: 'reduce',
  })
  await enterDemo(dark, DEMO)
  await shoot(dark, 'light-dark')
})
