import { test, type Page } from '@playwright/test'
import { join } from 'node:path'
import { DEMO } from '../playwright.config.ts'
import { enterDemo, goTo } from '../steps.ts'

const folder = join(import.meta.dirname, '..', '..', 'docs', 'screenshots')

async function shoot(page: Page, name: string): Promise<void> {
  await page.mouse.move(0, 0)
  await page.evaluate(() => document.fonts.ready)
  await page.getByRole('status').first().waitFor({ state: 'hidden', timeout: 60_000 })
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
  const dark = await browser.newPage({
    viewport: { width: 1280, height: 800 },
    colorScheme: 'dark',
    reducedMotion: 'reduce',
  })
  await enterDemo(dark, DEMO)
  await shoot(dark, 'light-dark')
})
