import type { Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test } from './practice.ts'
import { expectAccessible, goTo, watchForErrors } from './steps.ts'

test.use({ begins: 'empty' })

const folder = join(import.meta.dirname, '..', 'examples', 'walled-court')

/** The first account of a practice, whose first garden is asked for next. */
async function makeAccount(page: Page): Promise<void> {
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Welcome to Seasoned Border' })).toBeVisible()
  await page.getByLabel('Practice').fill('First practice')
  await page.getByLabel('Your name').fill('First Person')
  await page.getByLabel('E-mail address').fill('first@example.invalid')
  await page.getByLabel('Password').fill('a long row of beans')
  await page.getByRole('button', { name: 'Make the account' }).click()
  await expect(page.getByRole('heading', { name: 'Your first garden' })).toBeVisible()
}

test('an empty practice takes in the example folder and walks it from a lost workshop to a planting that has moved', async ({
  page,
}) => {
  const errors = watchForErrors(page)

  await test.step('the first account', async () => {
    await page.goto('/')
    await expectAccessible(page, 'first account')
    await makeAccount(page)
  })

  await test.step('a bad file is refused whole, with the place of every error', async () => {
    const plan = readFileSync(join(folder, 'plan.geojson'), 'utf8').replace(
      '"heightM": 10.5',
      '"heightM": 210',
    )
    const plantings = readFileSync(join(folder, 'plantings.csv'), 'utf8').replace(
      'Door pot,Fuchsia',
      'Door pt,Fuchsia',
    )
    const file = (name: string, text: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(text) })
    await page
      .getByLabel('Garden files')
      .setInputFiles([file('plan.geojson', plan), file('plantings.csv', plantings)])
    await expect(
      page.getByText('plan.geojson, feature 2 “Old workshop”, heightM: must be at most 120'),
    ).toBeVisible()
    await expect(page.getByRole('button', { name: 'Save this garden' })).toBeHidden()
  })

  await test.step('the good folder is shown before it is saved', async () => {
    await page
      .getByLabel('Garden files')
      .setInputFiles(['plan.geojson', 'plantings.csv', 'weather.csv'].map((f) => join(folder, f)))
    await expect(page.getByText(/9 plantings; 4748 days of weather/)).toBeVisible()
    await expect(page.getByRole('img', { name: 'Plan of Walled Court' })).toBeVisible()
    await expectAccessible(page, 'import preview')
    await page.getByRole('button', { name: 'Save this garden' }).click()
    await expect(page.getByRole('heading', { level: 1, name: 'Light' })).toBeVisible()
    await expect(page.getByRole('button', { name: /Hosta sieboldiana/ })).toBeHidden()
  })

  await test.step('the workshop is gone', async () => {
    await goTo(page, 'Plan')
    await page.getByRole('button', { name: /^Old workshop/ }).click()
    await expect(page.getByText('building, 10.5 m high.')).toBeVisible()
    await page.getByRole('button', { name: 'Record', exact: true }).click()
    await expect(page.getByText(/^Old workshop is gone from/)).toBeVisible()
  })

  await test.step('who no longer fits, and the verdict', async () => {
    await goTo(page, 'Light')
    await expect(
      page.getByText(/Court border has gained .* mostly because Old workshop went in/),
    ).toBeVisible()
    await page.getByRole('button', { name: /Hosta sieboldiana/ }).click()
    await page.getByRole('link', { name: 'Weigh the verdict on it' }).click()
    await page.getByRole('button', { name: 'Agree: move it' }).click()
    await expect(page.getByRole('button', { name: /Hosta sieboldiana ✓ move/ })).toBeVisible()
  })

  await test.step('the jobs, done', async () => {
    await goTo(page, 'Season')
    for (const title of [
      /^Prepare North bed for Hosta.* min$/,
      /^Lift Hosta sieboldiana from Court border/,
    ]) {
      await page.getByRole('button', { name: title }).click()
      await page.getByRole('button', { name: 'Record it done' }).click()
      await page.getByRole('button', { name: 'Record', exact: true }).click()
      await expect(page.getByText(/^Done \d+ \w+ \d{4}$/)).toBeVisible()
      await expect(page.getByRole('button', { name: 'Record', exact: true })).toBeHidden()
    }
    await goTo(page, 'Plants')
    await page.getByRole('link', { name: 'W-01' }).click()
    await expect(page.getByText(/Moved from Court border to North bed: 3 of 3 replanted/)).toBeVisible()
  })
  expect(errors).toEqual([])
})

test('a garden is drawn by hand with the keyboard alone, by typed lengths, and its light is there at once', async ({
  page,
}) => {
  await makeAccount(page)
  await page.getByRole('tab', { name: 'By hand' }).press('Enter')
  await page.getByLabel('Name of the garden').fill('Hand-drawn')
  await page.getByLabel('Latitude').fill('-41.3')
  await page.getByLabel('Longitude').fill('174.8')
  await page.getByLabel('Time zone').fill('Pacific/Auckland')
  await page.getByRole('button', { name: 'Start the plan' }).press('Enter')

  const kinds = ['bed', 'container', 'building', 'wall', 'fence', 'hedge', 'tree']
  const addShape = async (
    kind: string,
    name: string,
    start: [number, number],
    sides: [length: number, bearing: number][],
  ) => {
    await page.getByRole('button', { name: 'Add to the plan' }).press('Enter')
    const what = page.getByRole('combobox', { name: 'What', exact: true })
    await what.focus()
    for (let i = 0; i < kinds.indexOf(kind); i++) await page.keyboard.press('ArrowDown')
    await expect(what).toHaveValue(kind)
    await page.getByLabel('Name', { exact: true }).fill(name)
    await page.getByLabel('Metres east').fill(String(start[0]))
    await page.getByLabel('Metres north').fill(String(start[1]))
    await page.getByLabel('Metres north').press('Tab')
    for (const [length, bearing] of sides) {
      await page.getByLabel('Length of the next side').fill(String(length))
      await page.getByLabel('Bearing of the next side').fill(String(bearing))
      await page.getByLabel('Bearing of the next side').press('Tab')
      await page.getByRole('button', { name: 'Add side' }).press('Enter')
    }
    await page.getByRole('button', { name: 'Put it on the plan' }).press('Enter')
    await expect(page.getByRole('button', { name: new RegExp(`^${name} ${kind}`) })).toBeVisible()
  }
  await addShape(
    'bed',
    'Front bed',
    [0, 0],
    [
      [3, 0],
      [6, 90],
      [3, 180],
    ],
  )
  await addShape(
    'building',
    'Shed',
    [0, 6],
    [
      [4, 0],
      [6, 90],
      [4, 180],
    ],
  )
  await addShape('tree', 'Kowhai', [12, 2], [])

  await goTo(page, 'Plants')
  await page.getByRole('button', { name: 'Add plants' }).press('Enter')
  const typed = page.getByLabel('How many of what')
  await typed.fill('1 hosta sieb')
  // Enter takes what is found by then: the library may still be on its way.
  await page.getByRole('button', { name: /Hosta sieboldiana/ }).waitFor()
  await typed.press('Enter')
  await expect(page.getByRole('list', { name: 'Entered' })).toContainText('1 Hosta sieboldiana in Front bed')
  await page.getByRole('button', { name: 'Done' }).press('Enter')
  await expect(page.getByText('1 planting of 1 taxon')).toBeVisible()
  await goTo(page, 'Light')
  // South of the equator the sun is in the north: the shed beyond the bed takes some of it, and a hosta still has too much.
  await expect(page.getByRole('button', { name: /Hosta sieboldiana/ })).toContainText(/h now/)
  await expect(page.getByText('1 planting stands outside the light it likes.')).toBeVisible()
})
