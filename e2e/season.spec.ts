import { expect, test } from './practice.ts'
import { enterDemo, expectAccessible, expectNoSidewaysScroll, goTo, watchForErrors } from './steps.ts'

test('a season is planned, looked at, taken and explained; a rule is moved; the coming days are told', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page)

  await test.step('what the next ten days allow, by kind of work, with the reason', async () => {
    await goTo(page, 'Now')
    await page.getByRole('button', { name: /^Dig, 15 Sept: / }).click()
    await expect(page.getByText(/^Tue 15 Sept, dig: (good|poor|no)\.$/)).toBeVisible()
  })

  await test.step('the plan is worked out, shown, and taken', async () => {
    await goTo(page, 'Season')
    await page.getByRole('button', { name: 'Plan the season' }).click()
    await expect(page.getByRole('heading', { name: 'The plan proposed' })).toBeVisible()
    await expect(page.getByText(/\d+ jobs on \d+ days, \d+ in their best weeks/)).toBeVisible()
    await expectAccessible(page, 'the plan proposed')
    await page.getByRole('button', { name: 'Take this plan' }).click()
    await expect(page.getByRole('heading', { name: 'The plan proposed' })).toBeHidden()
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

  await test.step('feeds come round on weekdays of the month, and that follows into the season', async () => {
    await page.getByRole('searchbox', { name: 'Find a rule or a plant' }).fill('every 14 days, by turns')
    await page.getByRole('button', { name: 'Adjust' }).click()
    await page.getByRole('radio', { name: 'On weekdays of the month' }).check()
    await expectAccessible(page, 'weekdays of the month')
    await page.getByRole('button', { name: 'Keep', exact: true }).click()
    await expect(page.getByText('Adjusted: on the first and third Saturday of the month.')).toBeVisible()
  })
  expect(errors).toEqual([])
})

test('a colour is wished of a hydrangea: the soil’s test says how it stands, and the dose is a job', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Plants')
  await page.getByRole('link', { name: 'N-009', exact: true }).click()
  await page.getByRole('button', { name: 'Put it right' }).click()
  const form = page.getByRole('dialog')
  await form.getByLabel('Flowers wished').click()
  await page.getByTitle('blue').click()
  await form.getByRole('button', { name: 'Put it right' }).click()
  await expect(page.getByText(/^At pH 6\.6 it flowers pink to mauve; blue wants 5\.5 or less/)).toBeVisible()
  await goTo(page, 'Season')
  await page
    .getByRole('button', { name: /^Acidify the soil of Hydrangea macrophylla/ })
    .first()
    .click()
  await expect(
    page.getByText(/^By its test the soil has pH 6\.6 and is to have 5\.3: 140 g of sulphur/),
  ).toBeVisible()
  expect(errors).toEqual([])
})

test('someone falls ill and a day is lost: what moved is said, with why', async ({ page }) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Set-up')
  await expect(page.getByText(/They also look after Cliff Lane/)).toBeVisible()
  await page.getByRole('combobox', { name: 'Who is away' }).click()
  await page.locator('.ant-select-item-option').getByText('Tobin Reeve').click()
  await page.getByRole('textbox', { name: 'Why' }).fill('ill')
  await page.getByPlaceholder('Start date').fill('15 Sep 2026')
  await page.keyboard.press('Enter')
  await page.getByPlaceholder('End date').fill('1 Oct 2026')
  await page.keyboard.press('Enter')
  const away = page.getByRole('listitem').filter({ hasText: 'Tobin Reeve, 15 Sept 2026 to 1 Oct 2026: ill' })
  await expect(away).toBeVisible()

  await goTo(page, 'Season')
  const lostDay = page
    .locator('.agenda section')
    .filter({ has: page.getByRole('button', { name: 'Lost to rain' }) })
    .first()
  // Whichever day the plan has put the first work on.
  const [, date, month] = /(\d+) (\w{3})\w* \d{4}/.exec(
    (await lostDay.getByRole('heading').textContent()) ?? '',
  )!
  await lostDay.getByRole('button', { name: 'Lost to rain' }).click()
  await expect(page.getByRole('heading', { name: /moved, and why$|^Nothing had to move$/ })).toBeVisible()

  await goTo(page, 'Set-up')
  const lost = page
    .getByRole('listitem')
    .filter({ hasText: new RegExp(`^${date} ${month}\\w* \\d{4}: no work`) })
  await lost.getByRole('button', { name: 'As usual again' }).click()
  await expect(lost).toBeHidden()
  await away.getByRole('button', { name: 'Take back' }).click()
  await expect(away).toBeHidden()
  expect(errors).toEqual([])
})

test('a job sheet takes a record without a connection, and sends it when there is one', async ({
  page,
  context,
}) => {
  await enterDemo(page)
  await goTo(page, 'Season')
  await page.getByRole('link', { name: 'Job sheet' }).first().click()
  const job = page.locator('.job-sheet-jobs > li').first()
  const title = (await job.getByRole('heading').innerText()).trim()
  await context.setOffline(true)
  await job.getByRole('button', { name: 'Done' }).click()
  await job.getByLabel('Minutes').fill('25')
  await job.getByRole('button', { name: 'Record', exact: true }).click()
  await expect(job.getByRole('status')).toContainText('No connection: it waits on this device')
  await context.setOffline(false)
  await expect(
    page.locator('.job-sheet-jobs').getByRole('heading', { name: title, exact: true }),
  ).toBeHidden()
  await goTo(page, 'Season')
  await page
    .getByRole('button', { name: `✓ ${title}` })
    .first()
    .click()
  await expect(page.getByText(/ by Marla Quill in 25 min/)).toBeVisible()
})

test('a garden adds a rule of its own and a taxon of its own', async ({ page }) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Season')
  await page.getByRole('link', { name: 'Rules' }).click()
  await page.getByRole('button', { name: 'Add a rule of your own' }).click()
  await page.getByLabel('What is done').fill('Comb the thatch out with a rake')
  await page.getByRole('radio', { name: 'whole places' }).check()
  await page.getByLabel('Why', { exact: true }).fill('Thatch holds the wet.')
  await page.getByLabel('When it is missed').fill('Next spring will do.')
  await expectAccessible(page, 'a rule of one’s own')
  await page.getByRole('button', { name: 'Keep the rule' }).click()
  await page.getByRole('searchbox', { name: 'Find a rule or a plant' }).fill('thatch')
  await expect(page.getByText(/^Beds: comb the thatch out with a rake/)).toBeVisible()
  await expect(page.getByText(/^Next here: /)).toBeVisible()
  await page.getByRole('button', { name: 'Take it away' }).click()
  await expect(page.getByText('No rule speaks of that.')).toBeVisible()

  await goTo(page, 'Plants')
  await page.getByText('Library', { exact: true }).click()
  await page.getByRole('searchbox', { name: 'Search' }).fill('geum chiloens')
  await page.getByRole('link', { name: 'Geum chiloense' }).click()
  await page.getByRole('button', { name: 'Make another from it' }).click()
  await page.getByLabel('Botanical name').fill('Geum quellyon')
  await page.getByLabel('Spacing').fill('3')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByText('must not be wider than its spread')).toBeVisible()
  await page.getByLabel('Spacing').fill('0.3')
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Geum quellyon' })).toBeVisible()
  await page.getByRole('button', { name: 'Take it away' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Plants' })).toBeVisible()
  expect(errors).toEqual([])
})

test('on a phone the screen that is open is in view among the others, and a week of work fits', async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 })
  await enterDemo(page)
  await page.goto(page.url().replace(/\/g\/([^/]+).*/, '/g/$1/season?span=week'))
  const tab = page.getByRole('link', { name: /^Season( \d+)?$/ })
  await expect(tab).toBeInViewport({ ratio: 1 })
  await expect(page.getByRole('region', { name: 'The week' }).getByRole('listitem')).toHaveCount(7)
  await expectNoSidewaysScroll(page)
  await page.getByRole('button', { name: 'The week after' }).click()
  await expect(page).toHaveURL(/week=2026-09-21/)
  await expectAccessible(page, 'a week of work')
})

test('who calls plants by their common names reads no other, on the walk and in the work, after a new start too', async ({
  page,
}) => {
  await enterDemo(page)
  await goTo(page, 'Set-up')
  await page.getByLabel('Names of plants').selectOption('common')
  await expect(page.getByLabel('Names of plants')).toHaveValue('common')
  await page.reload()
  await goTo(page, 'Walk')
  await expect(page.locator('.walk-name', { hasText: /^ice plant/ })).toBeVisible()
  await expect(page.getByText('Hylotelephium')).toHaveCount(0)
  await goTo(page, 'Season')
  await expect(
    page.getByRole('button', { name: /^Take cuttings of zonal pelargonium/ }).first(),
  ).toBeVisible()
  await expect(page.getByRole('button', { name: /Pelargonium ×/ })).toHaveCount(0)
  await goTo(page, 'Set-up')
  await page.getByLabel('Names of plants').selectOption('botanical first')
  await goTo(page, 'Walk')
  await expect(page.locator('.walk-name', { hasText: /^Hylotelephium spectabile ice plant/ })).toBeVisible()
})
