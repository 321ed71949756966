import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { expect, test } from './practice.ts'
import {
  enterDemo,
  expectAccessible,
  expectNoSidewaysScroll,
  goTo,
  takeInHand,
  watchForErrors,
} from './steps.ts'

const part = (page: Page, name: string) =>
  page.getByRole('radiogroup', { name: 'Part of the scheme' }).getByText(name, { exact: true }).click()
const kept = (page: Page) => expect(page.getByText('Kept.', { exact: true })).toBeVisible()

test('a place is decided anew from its verdicts: what goes where, what comes in, laid out, reckoned, set out by tape', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Rework')
  await page.getByLabel('Which place').selectOption({ label: 'Slipway bed' })
  await page.getByRole('button', { name: 'From its verdicts' }).click()
  await page.getByRole('heading', { level: 1, name: 'Slipway bed' }).waitFor()
  await expect(page.getByText(/plantings? leaves?; nothing comes in yet/)).toBeVisible()

  // Against the advice, at its price.
  const rows = page.getByRole('list', { name: 'What stands here' })
  await rows.getByRole('button', { name: 'Send it elsewhere…' }).first().click()
  await rows.getByRole('button', { name: 'It is given away' }).click()
  await expect(rows.getByText(/^It is given away, as you decided/)).toBeVisible()
  await expectAccessible(page, 'what stays and goes')

  await part(page, 'Comes in')
  await page.getByRole('button', { name: 'Propose three palettes' }).click()
  const last = page.getByRole('region', { name: 'Palette C' })
  await expect(last).toBeVisible()
  await expectAccessible(page, 'three palettes')
  await last.getByRole('button', { name: 'Take this' }).click()
  await expect(page.getByText(/Next: lay it out/)).toBeVisible()

  await part(page, 'Layout')
  await page.getByRole('button', { name: 'Lay it out' }).click()
  await expect(page.getByRole('button', { name: 'Lay it out another way' })).toBeVisible()
  const drifts = page.locator('.bed-drift')
  await expect(drifts.first()).toBeVisible()
  await kept(page)

  // Dragged, and gone back to.
  const outlines = () => drifts.evaluateAll((all) => all.map((d) => d.getAttribute('d')))
  const before = await outlines()
  const box = (await drifts.first().boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2 + 90, box.y + box.height / 2 + 20, { steps: 8 })
  await page.mouse.up()
  await expect.poll(outlines).not.toEqual(before)
  await kept(page)
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect.poll(outlines).toEqual(before)

  // By keys alone: nothing in hand, the first drift, one plant more, and back.
  const bed = page.getByRole('application', { name: /^Slipway bed with its drifts/ })
  await bed.focus()
  await page.keyboard.press('Escape')
  await page.keyboard.press('.')
  const first = page.getByRole('list', { name: 'Drifts' }).getByRole('spinbutton').first()
  const count = Number(await first.inputValue())
  await bed.focus()
  await page.keyboard.press('+')
  await expect(first).toHaveValue(String(count + 1))
  await page.keyboard.press('Control+z')
  await expect(first).toHaveValue(String(count))
  await kept(page)
  await expectAccessible(page, 'a bed laid out')

  await part(page, 'Quantities')
  await expect(page.getByRole('heading', { name: 'Shopping list' })).toBeVisible()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByText('Shopping list as CSV').click(),
  ])
  expect(readFileSync(await file.path(), 'utf8')).toMatch(/^\uFEFFsupplier,item,wanted,packs/)
  await expectAccessible(page, 'what it takes')

  // It is all there when it is opened again, and on paper.
  await page.reload()
  await expect.poll(outlines).toEqual(before)
  await page.getByRole('link', { name: 'Planting sheet' }).click()
  const table = page.getByRole('table', { name: 'Where each plant is set' })
  await expect(table.getByRole('row').nth(1)).toHaveText(/^1/)
  await expectAccessible(page, 'the planting sheet')
  const saved = async (button: string) => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: button }).click(),
    ])
    return [download.suggestedFilename(), readFileSync(await download.path(), 'latin1')] as const
  }
  const [name, pdf] = await saved('PDF to print')
  expect(name).toMatch(/^slipway-bed-.*\.pdf$/)
  expect(pdf.slice(0, 5)).toBe('%PDF-')
  const [, svg] = await saved('From the path as SVG')
  expect(svg).toMatch(/^<svg [\s\S]*<\/svg>\s*$/)
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('navigation', { name: 'Main' })).toBeHidden()
  expect(errors).toEqual([])
})

test('a client looks at a scheme by a link, on a phone and without an account, until it is withdrawn', async ({
  page,
  browser,
  baseURL,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Rework')
  await page.getByRole('link', { name: 'Courtyard border' }).click()
  await page.getByRole('link', { name: 'Planting sheet' }).click()
  await page.getByRole('button', { name: 'Make a link' }).click()
  const address = await page.getByLabel('The client’s link').inputValue()
  await expectAccessible(page, 'a scheme on paper')

  const context = await browser.newContext({ baseURL, viewport: { width: 390, height: 844 } })
  const client = await context.newPage()
  await client.goto(new URL(address).pathname)
  await expect(client.getByRole('heading', { level: 1, name: /^Courtyard border: / })).toBeVisible()
  const view = client.getByRole('img', { name: /from the path in the week of/ })
  const autumn = await view.screenshot()
  const week = client.getByRole('slider', { name: 'Week of the year' })
  await week.focus()
  await client.keyboard.press('Home')
  await expect(view).toHaveAccessibleName(/week of 4 January/)
  expect(Buffer.compare(autumn, await view.screenshot())).not.toBe(0)
  await expectNoSidewaysScroll(client)
  await expectAccessible(client, 'a client’s look')

  await page.getByRole('button', { name: 'Withdraw it' }).click()
  await expect(page.getByRole('button', { name: 'Withdraw it' })).toBeHidden()
  await client.reload()
  await expect(client.getByText(/This link does not work, or no longer/)).toBeVisible()
  await context.close()
  expect(errors).toEqual([])
})

test('two schemes wait in the demo, and a kind in the hand is shown where it would do well, on a phone too', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await page.setViewportSize({ width: 390, height: 844 })
  await enterDemo(page)
  await page.goto(page.url().replace(/light.*/, 'rework'))
  await page.getByRole('link', { name: 'Courtyard border' }).click()
  await page.getByText('Blue and quiet', { exact: true }).click()
  await part(page, 'Layout')
  await expect(page.getByRole('list', { name: 'Drifts' }).getByRole('listitem').first()).toBeVisible()
  await expectNoSidewaysScroll(page)
  await part(page, 'Quantities')
  await expect(page.getByRole('table', { name: 'Schemes side by side' })).toBeVisible()
  await expectNoSidewaysScroll(page)
  await page.getByRole('link', { name: 'All reworks' }).click()
  await page.getByText('Where could it go?').click()
  await takeInHand(page, 'Hosta sieb', /^Hosta/)
  const places = page.getByRole('list', { name: 'Places, the best first' }).getByRole('listitem')
  await expect(places.first()).toHaveText(/% of it|all of it/)
  await expect(places.last()).toHaveText(/none of it/)
  await expectNoSidewaysScroll(page)
  await expectAccessible(page, 'where a kind could go')
  expect(errors).toEqual([])
})

test('a scheme is seen from the path by week and year, by keys alone and on a phone', async ({ page }) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Rework')
  await page.getByRole('link', { name: 'Courtyard border' }).click()
  await page.getByRole('radio', { name: 'Plan', exact: true }).focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  const picture = page.getByRole('img', { name: /^Courtyard border as it is seen from the path/ })
  await expect(picture).toBeVisible()
  const week = page.getByRole('slider', { name: 'Week of the year' })
  await week.focus()
  await page.keyboard.press('Home')
  await expect(picture).toHaveAccessibleName(/week of 4 January, 3 years after planting/)
  const winter = await picture.screenshot()
  for (let i = 0; i < 30; i++) await page.keyboard.press('ArrowRight')
  await expect(picture).toHaveAccessibleName(/week of 2 August/)
  await expect(page.getByText(/Hidden in August:|Nothing that stands in August/)).toBeVisible()
  expect(Buffer.compare(winter, await picture.screenshot())).not.toBe(0)
  await page.getByLabel('Year of growth').selectOption('10')
  await expect(page.getByText(/^10 years on/)).toBeVisible()
  // The drift in hand is told of by itself.
  await page.getByText('Both', { exact: true }).click()
  const bed = page.getByRole('application', { name: /^Courtyard border with its drifts/ })
  await bed.focus()
  await page.keyboard.press('.')
  await expect(page.getByText(/this drift of .+ (is|are) (hidden|seen)/i)).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByText('From the path', { exact: true }).click()
  await expectAccessible(page, 'a scheme from the path')
  // Gone back to, it stands at the same week: the 31st, which begins a day sooner in a leap year.
  await expect.poll(() => page.url()).toMatch(/week=30/)
  await page.reload()
  await expect(picture).toHaveAccessibleName(/week of 1 August, 10 years/)
  await page.setViewportSize({ width: 390, height: 844 })
  await expect(picture).toBeVisible()
  await expectNoSidewaysScroll(page)
  await page.getByText('Both', { exact: true }).click()
  await expect(page.getByRole('application')).toBeVisible()
  await expectNoSidewaysScroll(page)
  // Both schemes at that moment, one above the other here, side by side where there is room.
  await page.getByText('Side by side', { exact: true }).click()
  for (const name of ['Late and warm', 'Blue and quiet'])
    await expect(page.getByRole('img', { name: new RegExp(`^${name}: .*week of 1 August`) })).toBeVisible()
  await expectNoSidewaysScroll(page)
  await page.setViewportSize({ width: 1280, height: 800 })
  await expectAccessible(page, 'two schemes side by side')
  expect(errors).toEqual([])
})

test('a scheme is carried out: its steps are jobs of the season, what is planted stands in the garden, and it can be called off', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await page.getByRole('combobox', { name: 'Garden' }).selectOption('Cliff Lane')
  await goTo(page, 'Rework')
  await page.getByRole('link', { name: 'Middle terrace' }).click()
  await part(page, 'Layout')
  await page.getByText('As it grows', { exact: true }).click()
  await expect(page.getByText('Year 10')).toBeVisible()
  // It is fixed: nobody is asked what fills it.
  await expect(page.getByLabel('Annual that fills what is open')).toBeHidden()
  await expect(page.getByText(/is worked out…$/)).toBeHidden()
  await expect(page.getByText(/could not be worked out/)).toBeHidden()
  await part(page, 'Steps')
  await expect(page.getByText(/of 30 steps are done/)).toBeVisible()
  const record = async (next: RegExp) => {
    await expect(page.getByRole('heading', { name: next })).toBeVisible()
    await page.getByRole('button', { name: 'Record it done' }).click()
    await page.getByRole('button', { name: 'Record', exact: true }).click()
  }
  await record(/^Next: Set out/)
  await expect(page.getByRole('heading', { name: /^Next: Plant/ })).toBeVisible()
  const title = await page.getByRole('heading', { name: /^Next: Plant/ }).textContent()
  const [, count, kind] = /Plant (\d+) (.+) in/.exec(title!)!
  await expectAccessible(page, 'a scheme under way')
  await record(/^Next: Plant/)
  await expect(page.getByRole('heading', { name: title! })).toBeHidden()
  // What was planted is in the garden, under a tag of its own.
  await goTo(page, 'Plants')
  await expect(page.getByRole('row', { name: new RegExp(`${kind}.*${count}`) }).first()).toBeVisible()
  await goTo(page, 'Rework')
  await page.getByRole('link', { name: 'Middle terrace' }).click()
  await part(page, 'Steps')
  await page.getByRole('button', { name: 'Call it off' }).click()
  const again = page.getByRole('button', { name: 'Carry it out' })
  await expect(again).toBeVisible()
  // What is left of it can be taken up again: the second kind, and what belongs to it.
  await again.click()
  await expect(page.getByRole('heading', { name: /^Next: / })).toBeVisible()
  await page.setViewportSize({ width: 390, height: 780 })
  await expectNoSidewaysScroll(page)
  expect(errors).toEqual([])
})
