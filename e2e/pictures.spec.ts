import type { Page } from '@playwright/test'
import sharp from 'sharp'
import { pdfOf } from './pdf.ts'
import { expect, test } from './practice.ts'
import { enterDemo, expectAccessible, expectNoSidewaysScroll, goTo, watchForErrors } from './steps.ts'

type Point = readonly [number, number]
interface Kept {
  name: string
  width: number
  height: number
  strength: number
  laying: {
    ties: { px: Point; at: Point }[]
    a: { px: Point; at: Point }
    b: Point
    lengthM: number
    turnDeg: number
  }
}

const opened = async (page: Page) => {
  await enterDemo(page)
  await goTo(page, 'Plan')
  await page.getByRole('link', { name: 'From a picture' }).click()
  await page.getByRole('heading', { level: 1, name: 'From a picture' }).waitFor()
}
const file = (page: Page) => page.getByLabel('A picture, or a PDF')
const points = (page: Page) => page.getByRole('list', { name: 'Points' }).getByRole('listitem')
const kept = (page: Page): Promise<Kept[]> =>
  page.evaluate(async () => {
    const garden = /\/g\/([^/]+)/.exec(location.pathname)![1]
    return (await fetch(`/api/gardens/${garden}/plan/pictures`)).json()
  })
const drawn = (svg: string, width: number, height: number) =>
  sharp(
    Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${svg}</svg>`),
  )

/** Clicks a point of the picture, however large it is shown. */
async function mark(page: Page, [px, py]: Point, width: number): Promise<void> {
  const box = (await page.locator('svg[aria-label^="The picture"] image').boundingBox())!
  const scale = box.width / width
  await page.mouse.click(box.x + px * scale, box.y + py * scale)
}
async function liesAt(page: Page, nth: number, [x, y]: Point): Promise<void> {
  const row = points(page).nth(nth)
  for (const [label, v] of [
    ['Metres east', x],
    ['Metres north', y],
  ] as const) {
    await row.getByLabel(label).fill(String(v))
    await row.getByLabel(label).press('Tab')
  }
}

test('a slanting photo of a bed is straightened by its corners, and lies under the plan', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await opened(page)
  // A camera two metres up, ten before the bed, looking down: where it has each point of the ground.
  const see = ([x, y]: Point): Point => {
    const [dx, dy, dz] = [x - 15, y + 12, -2]
    const [cos, sin] = [Math.cos(0.3), Math.sin(0.3)]
    return [
      700 + (800 * dx) / (dy * cos - dz * sin),
      420 - (800 * (dy * sin + dz * cos)) / (dy * cos - dz * sin),
    ]
  }
  const corners: Point[] = [
    [9, -5],
    [21, -5],
    [22, 3],
    [8, 3],
    [15, -1],
  ]
  const ground = corners.slice(0, 4).map(see).join(' ')
  const photo = drawn(
    `<rect width="1400" height="900" fill="#86a25f"/><polygon points="${ground}" fill="#6d5a49"/>`,
    1400,
    900,
  )
  await file(page).setInputFiles({
    name: 'Border.jpg',
    mimeType: 'image/jpeg',
    buffer: await photo.jpeg().toBuffer(),
  })
  await page.getByText('A slanting photo', { exact: true }).click()
  await expect(page.getByText('Click four or more points')).toBeVisible()
  for (const [i, corner] of corners.entries()) {
    await mark(page, see(corner), 1400)
    await expect(points(page)).toHaveCount(i + 1)
  }
  await liesAt(page, 0, corners[0]!)
  await expect(page.getByText('Say where 2 lies')).toBeVisible()
  for (let i = 1; i < 5; i++) await liesAt(page, i, corners[i]!)
  await expect(page.getByText(/It is out by about \d+\u00a0cm/)).toBeVisible()
  await expect(page.getByRole('img', { name: /The plan/ }).locator('.plan-picture image')).toBeVisible()
  await expectAccessible(page, 'a photo being laid')
  await page.getByRole('button', { name: 'Lay it so' }).click()
  await expect(page.getByText('It lies under the plan.')).toBeVisible()
  const picture = (await kept(page)).find((p) => p.name === 'Border')!
  // Where it was clicked, to a pixel of the screen: four of the picture here.
  for (const [i, { px, at }] of picture.laying.ties.entries()) {
    const [x, y] = see(corners[i]!)
    expect(Math.hypot(px[0] - x, px[1] - y)).toBeLessThan(6)
    expect(at).toEqual(corners[i])
  }
  await page.getByRole('link', { name: 'To the plan' }).click()
  await page.getByLabel('Pictures').check()
  await expect(page.locator('.plan-picture image')).toHaveCount(2)
  await page.getByLabel('Pictures').uncheck()
  await expect(page.locator('.plan-picture image')).toHaveCount(0)
  expect(errors).toEqual([])
})

test('a page of a PDF is laid by two points and a length, by keys alone, faded, taken away and brought back', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await opened(page)
  const pages = ['0 0 1 rg 20 20 60 60 re f', '0.4 0.3 0.2 RG 4 w 72 72 300 200 re S']
  await file(page).setInputFiles({
    name: 'Survey.pdf',
    mimeType: 'application/pdf',
    buffer: pdfOf([420, 300], pages),
  })
  await page.getByRole('spinbutton', { name: /Page/ }).fill('2')
  await page.getByLabel('called').fill('Survey, second sheet')
  await page.getByRole('button', { name: 'Take this page' }).click()
  await expect(page.getByText('Click a point in the picture')).toBeVisible()
  // The page came as it is drawn: paper in the middle, a line at the left of its frame.
  const { width, height } = (await kept(page)).find((p) => p.name === 'Survey, second sheet')!
  expect([width, height]).toEqual([4000, Math.round((4000 * 300) / 420)])

  const middle = page.getByRole('button', { name: 'Mark its middle' })
  await middle.press('Enter')
  await page.getByRole('button', { name: 'Mark A' }).focus()
  for (let i = 0; i < 20; i++) await page.keyboard.press('Shift+ArrowLeft')
  await middle.press('Enter')
  await liesAt(page, 0, [4, 6])
  await page.getByLabel('From A to B').fill('10')
  await page.getByLabel('From A to B').press('Tab')
  await page.getByRole('button', { name: 'Lay it so' }).press('Enter')
  await expect(page.getByText('It lies under the plan.')).toBeVisible()
  const [, picture] = await kept(page)
  // Twenty steps of ten pixels apart, and up in it is north.
  const { a, b, lengthM, turnDeg } = picture!.laying
  expect([a.at, b[0] - a.px[0], b[1] - a.px[1], lengthM, turnDeg]).toEqual([[4, 6], 200, 0, 10, 0])

  const fade = page.getByLabel('How strongly Survey, second sheet shows')
  await fade.focus()
  await page.keyboard.press('Home')
  await fade.press('Tab')
  await expect.poll(async () => (await kept(page))[1]!.strength).toBe(0.05)
  await page
    .getByRole('listitem')
    .filter({ hasText: 'second sheet' })
    .getByRole('button', { name: 'Take away' })
    .click()
  await expect.poll(async () => (await kept(page)).length).toBe(1)
  await page.getByRole('button', { name: 'Bring it back' }).click()
  await expect.poll(async () => (await kept(page))[1]?.laying).toEqual(picture!.laying)
  expect(errors).toEqual([])
})

test('what cannot be brought in is said, and nothing is; on a phone it fits', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 800 })
  await opened(page)
  const huge = await sharp({ create: { width: 20_000, height: 10_000, channels: 3, background: '#fff' } })
    .png()
    .toBuffer()
  await file(page).setInputFiles({ name: 'huge.png', mimeType: 'image/png', buffer: huge })
  await expect(page.getByText(/20000 by 10000 points, more than the 60 million/)).toBeVisible()
  await file(page).setInputFiles({
    name: 'torn.pdf',
    mimeType: 'application/pdf',
    buffer: Buffer.from('%PDF-1.4 torn'),
  })
  await expect(page.getByText('This document cannot be read as a PDF. Nothing was brought in.')).toBeVisible()
  await file(page).setInputFiles({
    name: 'notes.txt',
    mimeType: 'text/plain',
    buffer: Buffer.from('no picture'),
  })
  await expect(page.getByText(/not a picture that can be read/)).toBeVisible()
  expect(await kept(page)).toHaveLength(1)
  await page.getByRole('button', { name: 'Lay it otherwise' }).click()
  await expect(points(page)).toHaveCount(2)
  await expectNoSidewaysScroll(page)
})
