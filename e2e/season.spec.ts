import { expect, test } from '@playwright/test'
import { DEMO } from './playwright.config.ts'
import { enterDemo, expectAccessible, goTo, watchForErrors } from './steps.ts'

test('a season is planned, looked at, taken and explained; a rule is moved; the coming days are told', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page, DEMO)

  await test.step('what the next ten days allow, by kind of work, with the reason', async () => {
    await goTo(page, 'Now')
    await page.getByRole('button', { name: /^Dig, 15 Sept: / }).click()
    await expect(page.getByText(/^Tue 15 Sept, dig: (good|poor|no)\.$/)).toBeVisible()
  })

  await test.step('the plan is worked out, shown, and taken', async () => {
    await goTo(page, 'Season')
    await page.getByRole('button', { name: 'Plan the season' }).click()
    await expect(page.getByRole('heading', { name: 'A plan to look at' })).toBeVisible({ timeout: 40_000 })
    await expect(page.getByText(/\d+ jobs on \d+ days, \d+ in their best weeks/)).toBeVisible()
    await expectAccessible(page, 'a plan to look at')
    await page.getByRole('button', { name: 'Take this plan' }).click()
    await expect(page.getByRole('heading', { name: 'A plan to look at' })).toBeHidden()
  })

  await test.step('a job says why it is there', async () => {
    await page
      .getByRole('button', { name: /^Weed Courtyard border/ })
      .first()
      .click()
    await page.getByText('Why on this day?').click()
    await expect(page.getByText(/visited that day anyway|visit of its own/).first()).toBeVisible()
    await expect(page.getByText('A weed taken small has not seeded.')).toBeVisible()
  })

  await test.step('a rule is found, moved by days, and put back', async () => {
    await page.getByRole('link', { name: 'Rules' }).click()
    await page.getByRole('searchbox', { name: 'Find a rule or a plant' }).fill('mulch 5 cm')
    await expect(page.getByText(/^Beds: mulch 5 cm deep/)).toBeVisible()
    await expectAccessible(page, 'rules')
    await page.getByRole('button', { name: 'Adjust' }).click()
    await page.getByLabel('Days later').fill('7')
    await page.getByRole('button', { name: 'Keep', exact: true }).click()
    await expect(page.getByText('Adjusted: 7 days later.')).toBeVisible()
    await page.getByRole('button', { name: 'Adjust' }).click()
    await page.getByRole('button', { name: 'As shipped' }).click()
    await expect(page.getByText('Adjusted: 7 days later.')).toBeHidden()
  })
  expect(errors).toEqual([])
})
