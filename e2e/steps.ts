import AxeBuilder from '@axe-core/playwright'
import { expect, type Page } from '@playwright/test'

/** Console errors and broken scripts fail the flow they happen in. */
export function watchForErrors(page: Page): string[] {
  const errors: string[] = []
  page.on('pageerror', (e) => errors.push(e.message))
  page.on('console', (m) => {
    if (m.type() === 'error' && !/status of 4\d\d/.test(m.text())) errors.push(m.text())
  })
  return errors
}

export async function enterDemo(page: Page, who = 'Marla Quill'): Promise<void> {
  await page.goto('/')
  await page.getByRole('button', { name: new RegExp(who) }).click()
  await page.waitForURL(/\/g\//)
}

/** By the navigation to a screen, once it is shown. */
export async function goTo(page: Page, screen: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Main' })
    .getByRole('link', { name: new RegExp(`^${screen}( \\d+)?$`) })
    .click()
  await page.getByRole('heading', { level: 1, name: screen }).waitFor()
}

/** What is on its way in or out, or waits for its answer, is paler than it will be. */
const PASSING = '[aria-busy="true"], .ant-btn-loading, [class*="-leave-active"], [class*="-enter-active"]'

/** Changes of looks that are under way, but for what turns for ever. */
const passingLooks = (page: Page): Promise<number> =>
  page.evaluate(
    () =>
      document
        .getAnimations()
        .filter((a) => a.playState === 'running' && a.effect?.getComputedTiming().iterations !== Infinity)
        .length,
  )

/** WCAG 2.2 AA as far as a program can tell, once nothing on the page is half way. */
export async function expectAccessible(page: Page, where: string): Promise<void> {
  await expect(page.locator(PASSING)).toHaveCount(0)
  await expect.poll(() => passingLooks(page)).toBe(0)
  const { violations } = await new AxeBuilder({ page })
    .options({
      resultTypes: ['violations'],
      runOnly: { type: 'tag', values: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] },
    })
    // There are no frames: in one go, without all that was found going to and fro, in a third of the time.
    .setLegacyMode()
    .analyze()
  const found = violations.map(
    (v) =>
      `${v.id}: ${v.nodes
        .map((n) => n.target.join(' '))
        .slice(0, 3)
        .join(' | ')}`,
  )
  expect(found, where).toEqual([])
}

/** Nothing sticks out sideways, of the page or of the screen in its frame. */
export async function expectNoSidewaysScroll(page: Page): Promise<void> {
  const wider = await page.evaluate(() =>
    [document.documentElement, document.querySelector('.frame-main')]
      .filter((e) => e !== null)
      .filter((e) => e.scrollWidth > e.clientWidth)
      .map((e) => `${e.className || e.tagName}: ${e.scrollWidth} of ${e.clientWidth} px`),
  )
  expect(wider).toEqual([])
}

/** A kind taken in the hand where the plan shows it: typed, found, and taken with Enter. */
export async function takeInHand(page: Page, typed: string, found: RegExp): Promise<void> {
  const field = page.getByLabel('The kind in your hand')
  await field.fill(typed)
  await page.getByRole('option', { name: found }).first().waitFor({ state: 'attached' })
  await field.press('Enter')
}
