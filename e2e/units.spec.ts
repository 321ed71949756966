import type { Page } from '@playwright/test'
import { expect, test } from './practice.ts'
import { enterDemo, goTo, watchForErrors } from './steps.ts'

/** A quantity of the SI, or a day with its number first. */
const METRIC =
  /\d[\s ]?(?:km|m|cm|mm|l|ml|kg|g|°C|m²|m³|l\/h|m\/s)(?![\p{L}\d²³])|\b\d{1,2} (?:January|February|March|April|May|June|July|August|September|October|November|December|Jan|Feb|Aug|Sept|Oct|Nov|Dec)\b/u

/** What stands on the page, and is read out beside it, in metric units; but what a person wrote themselves. */
const metricOn = (page: Page): Promise<string[]> =>
  page.evaluate((source) => {
    const metric = new RegExp(source, 'u')
    for (const folded of document.querySelectorAll('details')) folded.open = true
    const told = [...document.body.querySelectorAll('*')].flatMap((n) => {
      if (n.closest('[translate="no"], script, style')) return []
      const own = [...n.childNodes].filter((c) => c.nodeType === Node.TEXT_NODE).map((c) => c.textContent)
      return [own.join(''), ...['aria-label', 'title', 'placeholder'].map((a) => n.getAttribute(a) ?? '')]
    })
    // Lines as they are read: a number in one element and its unit in the next.
    return [...told, ...document.body.innerText.split('\n')].filter((text) => metric.test(text))
  }, METRIC.source)

test('who measures in feet, gallons and pounds reads nothing else on any screen, and types them', async ({
  page,
}) => {
  test.slow()
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Set-up')
  await expect(page.getByText('So a bed is 3.40 by 1.20 m')).toBeVisible()
  await page.getByLabel('Lengths').selectOption('feet and inches')
  await page.getByLabel('Temperatures').selectOption('Fahrenheit')
  await page.getByLabel('Water and mix').selectOption('US gallons')
  await page.getByLabel('Weights').selectOption('pounds')
  await page.getByRole('combobox', { name: 'Days', exact: true }).selectOption('month first')
  await expect(
    page.getByText(
      `So a bed is 11'2" by 3'11", a can holds 2.4 gal and a bag 55 lb, and frost is below 32 °F until May 3, 2026.`,
    ),
  ).toBeVisible()

  for (const name of [
    'Now',
    'Walk',
    'Light',
    'Record',
    'Verdicts',
    'Rework',
    'Pots',
    'Season',
    'Plants',
    'Plan',
    'Set-up',
  ])
    await test.step(name, async () => {
      await goTo(page, name)
      await page.waitForLoadState('networkidle')
      await expect.soft.poll(() => metricOn(page), { message: name, timeout: 20_000 }).toEqual([])
    })

  await test.step('a wall on the plan is as high as is typed, in any unit', async () => {
    await goTo(page, 'Plan')
    await page
      .getByRole('button', { name: /^West boundary wall/ })
      .last()
      .click()
    const height = page.getByLabel('Height', { exact: true })
    await expect(height).toHaveValue(`7'10½"`)
    await height.fill('2.1 m')
    await height.press('Tab')
    await expect(height).toHaveValue(`6'10¾"`)
    await height.fill(`7'6"`)
    await height.press('Tab')
    await expect(height).toHaveValue(`7'6"`)
  })
  expect(errors).toEqual([])
})
