import type { Browser, Page } from '@playwright/test'
import { join } from 'node:path'
import { expect, test } from './practice.ts'
import { enterDemo, expectAccessible, expectNoSidewaysScroll, goTo, watchForErrors } from './steps.ts'

const rate = (page: Page, tag: string, word: string) =>
  page
    .getByRole('group', { name: new RegExp(`, ${tag}, does`) })
    .getByRole('button', { name: new RegExp(`${word}$`) })
    .click()

const openWalk = async (browser: Browser, who?: string) => {
  const context = await browser.newContext({
    reducedMotion: 'reduce',
    serviceWorkers: 'allow',
    locale: 'en-GB',
  })
  const page = await context.newPage()
  await enterDemo(page, who)
  await goTo(page, 'Walk')
  await page.getByRole('heading', { level: 2 }).first().waitFor()
  return page
}

test('a page of an older version holds the walk’s store: the walk goes on, and is kept once that page closes', async ({
  browser,
}) => {
  const context = await browser.newContext({ reducedMotion: 'reduce', locale: 'en-GB' })
  const older = await context.newPage()
  await older.goto('/icon.svg')
  await older.evaluate(
    () =>
      new Promise<void>((resolve) => {
        const opening = indexedDB.open('border-walk', 2)
        opening.onupgradeneeded = () => {
          for (const name of ['entries', 'photos', 'jobs'])
            opening.result.createObjectStore(name, { keyPath: 'id' }).createIndex('garden', 'gardenId')
          opening.result.createObjectStore('taken')
        }
        opening.onsuccess = () => {
          // Held for as long as the page is there.
          ;(globalThis as { held?: IDBDatabase }).held = opening.result
          resolve()
        }
      }),
  )
  const page = await context.newPage()
  await enterDemo(page)
  await goTo(page, 'Walk')
  const gardenId = page.url().split('/g/')[1]!.split('/')[0]!
  const ratings = async () => {
    const answer = await context.request.get(`/api/gardens/${gardenId}/observations.csv?from=2026-09-14`)
    const [, ...lines] = (await answer.text()).trim().split('\r\n')
    return lines.map((l) => l.split(',').slice(1, 4).join(' ')).sort()
  }
  await page
    .getByRole('navigation', { name: /Places/ })
    .getByRole('button', { name: /Courtyard border/ })
    .click()
  await rate(page, 'N-001', 'poor')
  await expect.poll(ratings).toEqual(['N-001 2026-09-14 2'])
  await expect(page.getByText(/This browser keeps nothing for later/)).toBeVisible()
  await context.setOffline(true)
  await rate(page, 'N-002', 'failing')
  await expect(page.getByText(/keeps nothing: leave this page open until 1 look can be sent/)).toBeVisible()
  await older.close()
  await expect(page.getByText('No connection. 1 look waiting on this device.')).toBeVisible()
  await page.close()
  await context.setOffline(false)
  const again = await context.newPage()
  await again.goto(`/g/${gardenId}/walk`)
  await expect.poll(ratings).toEqual(['N-001 2026-09-14 2', 'N-002 2026-09-14 1'])
  await context.close()
})

test('a walk without a connection loses and doubles nothing', async ({ browser, practice }) => {
  const page = await openWalk(browser)
  const context = page.context()
  const gardenId = page.url().split('/g/')[1]!.split('/')[0]!
  const rows = async () => {
    const answer = await context.request.get(`/api/gardens/${gardenId}/observations.csv?from=2026-09-14`)
    const [, ...lines] = (await answer.text()).trim().split('\r\n')
    return lines.map((l) => l.split(',').slice(1, 4).join(' ')).sort()
  }
  // The application is on the device once its worker is in charge.
  await page.evaluate(() => navigator.serviceWorker.ready)
  const place = (name: string) =>
    page.getByRole('navigation', { name: /Places/ }).getByRole('button', { name: new RegExp(name) })

  await test.step('with a connection, what is noted goes by itself', async () => {
    await place('Courtyard border').click()
    await rate(page, 'N-001', 'poor')
    await expect.poll(rows).toEqual(['N-001 2026-09-14 2'])
    await expect(page.getByText('All is in the record.')).toBeVisible()
  })

  await test.step('cut off in the middle, it waits on the device and says so', async () => {
    await context.setOffline(true)
    await rate(page, 'N-002', 'failing')
    await rate(page, 'N-003', 'poor')
    await rate(page, 'N-001', 'fair')
    await expect(page.getByText(/No connection\. 3 looks waiting/)).toBeVisible()
  })

  await test.step('the server dies, the page is closed and opened again: the walk is there', async () => {
    await practice.kill()
    await page.close()
  })
  const again = await context.newPage()
  await test.step('with neither connection nor server the walk goes on', async () => {
    await again.goto(`/g/${gardenId}/walk`)
    await again
      .getByRole('navigation', { name: /Places/ })
      .getByRole('button', { name: /Courtyard border/ })
      .click()
    await expect(again.getByText(/3 of 74 looked at/)).toBeVisible()
    await rate(again, 'N-004', 'failing')
    await again.getByRole('button', { name: 'The bed itself' }).click()
    await again
      .locator('.walk-standpoint input[type=file]')
      .setInputFiles(join(import.meta.dirname, '..', 'docs', 'screenshots', 'plan.png'))
    await expect(again.getByText(/4 looks and 1 photo waiting/)).toBeVisible()
  })

  await test.step('when both are back it is sent by itself, each thing once', async () => {
    await practice.start()
    await context.setOffline(false)
    await expect(again.getByText('All is in the record.')).toBeVisible()
    expect(await rows()).toEqual([
      'N-001 2026-09-14 3',
      'N-002 2026-09-14 1',
      'N-003 2026-09-14 2',
      'N-004 2026-09-14 1',
    ])
    const photos = await (await again.request.get(`/api/gardens/${gardenId}/photos`)).json()
    expect(photos.filter((p: { takenOn: string }) => p.takenOn === '2026-09-14')).toHaveLength(1)
    // Two more rounds of sending change nothing.
    await again.waitForTimeout(6_000)
    expect((await (await again.request.get(`/api/gardens/${gardenId}/photos`)).json()).length).toBe(
      photos.length,
    )
  })

  await test.step('two people at one planting: both looks are kept', async () => {
    const other = await openWalk(browser, 'Tobin Reeve')
    await other
      .getByRole('navigation', { name: /Places/ })
      .getByRole('button', { name: /Courtyard border/ })
      .click()
    await rate(other, 'N-002', 'fair')
    const seenBy = async () => {
      const file = `/api/gardens/${gardenId}/observations.csv?from=2026-09-14`
      const lines = (await (await other.request.get(file)).text()).split('\r\n')
      return lines
        .filter((l) => l.includes(',N-002,2026-09-14,'))
        .map((l) => l.split(',').at(-1))
        .sort()
    }
    await expect.poll(seenBy).toEqual(['Marla Quill', 'Tobin Reeve'])
    await other.context().close()
  })
  await context.close()
})

test('the record tells plant from spot from year, judges a trial, and reads signs by an edited table', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Record')
  await expect(page.getByText(/Of what differs between seasons’ scores, \d+ % is /)).toBeVisible()
  await page.getByRole('button', { name: /Rodgersia podophylla N-002/ }).click()
  await expect(page.getByText(/Falls \d\.\d a season from 20\d\d to 2026/)).toBeVisible()
  await expect(page.getByText(/On the plan: Storehouse went in February 2025/)).toBeVisible()
  await expectAccessible(page, 'record, plantings')
  const tab = (name: string) => page.locator('.screen-tools').getByText(name, { exact: true }).click()
  await tab('Taxa')
  await expect(page.getByText(/Slipway bed is the outlier: the spot, not the plant/)).toBeVisible()
  const trial = page.locator('.trial', { hasText: 'N-044' })
  await trial.getByRole('textbox').fill('Cut it by half in June first.')
  await trial.getByRole('button', { name: /Grow to a drift of/ }).click()
  await expect(trial).toBeHidden()
  await tab('Bloom')
  await page.getByRole('button', { name: /Courtyard border/ }).click()
  await expect(page.getByText(/Would fill it and stand the place/).first()).toBeVisible()
  await expectAccessible(page, 'record, bloom')
  await tab('Signs')
  await expect(page.getByRole('heading', { name: /Back lane bed: drier\?/ })).toBeVisible()
  await page.getByRole('button', { name: 'Open the table' }).click()
  const row = page.locator('.signs-table li', { hasText: 'scorched or bleached leaves' })
  await row.getByRole('slider').focus()
  await page.keyboard.press('ArrowRight')
  await expect(row.getByRole('button', { name: 'as shipped' })).toBeVisible()
  await row.getByRole('button', { name: 'as shipped' }).click()
  await expect(row.getByRole('button', { name: 'as shipped' })).toBeHidden()
  await expectAccessible(page, 'record, signs')
  await tab('Photos')
  const june = page.getByRole('button', { name: /Long border, 8 June/ })
  await june.first().click()
  await june.last().click()
  await expect(page.getByRole('region', { name: 'Side by side' }).getByRole('img')).toHaveCount(2)
  await expectAccessible(page, 'record, photos')
  expect(errors).toEqual([])
})

test('sixty plantings in a keystroke each, and the end says what the walk changed', async ({ page }) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Walk')
  await page.getByRole('heading', { level: 2 }).first().waitFor()
  await page.locator('.walk-main').focus()
  const started = Date.now()
  for (let i = 0; i < 60; i++) await page.keyboard.press(i % 7 === 0 ? '3' : '4')
  await expect(page.getByText('60 of 74 looked at')).toBeVisible()
  // Ten minutes for a person; the page itself must not be what takes them.
  expect(Date.now() - started).toBeLessThan(30_000)
  await page
    .getByRole('navigation', { name: /Places/ })
    .getByRole('button', { name: /Back lane bed/ })
    .click()
  await page.keyboard.press('x')
  await page.keyboard.press('Enter')
  const open = page.locator('.walk-card.is-current')
  await open.getByRole('button', { name: 'afternoon wilting' }).click()
  await open.getByRole('button', { name: 'One fewer living' }).click()
  await open.getByRole('textbox').last().fill('Hose lies coiled behind the shed.')
  await expectAccessible(page, 'walk')
  await page.getByRole('button', { name: 'End the walk' }).first().click()
  await expect(page.getByText('All of it is in the record.')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Not to be seen' })).toBeVisible()
  await expect(page.getByText(/Back lane bed: drier\?/)).toBeVisible()
  await expectAccessible(page, 'the end of the walk')
  expect(errors).toEqual([])
})

test('a sheet is printed, typed in by keyboard for its own day, and stands in the story', async ({
  page,
}) => {
  const errors = watchForErrors(page)
  await enterDemo(page)
  await goTo(page, 'Walk')
  await page.getByRole('link', { name: 'print a sheet' }).click()
  await page.getByRole('heading', { name: 'Walk on paper' }).waitFor()
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('navigation', { name: 'Main' })).toBeHidden()
  await expect(page.getByText('N-068')).toBeVisible()
  await page.emulateMedia({ media: 'screen' })
  await expectAccessible(page, 'the sheet')
  await page.getByRole('link', { name: 'Type a sheet in' }).click()
  await page.getByLabel('Day of the walk').fill('10 Sep 2026')
  await page.keyboard.press('Enter')
  await expect(page.getByText('for 10 September 2026')).toBeVisible()
  await page.getByLabel(/^Rating of N-068/).focus()
  await page.keyboard.type('2')
  for (let i = 0; i < 4; i++) await page.keyboard.press('Tab')
  await page.keyboard.type('Split by the hose.')
  await page.keyboard.press('Tab')
  await page.keyboard.type('0')
  await expect(page.getByText('2 plantings typed in')).toBeVisible()
  await page.reload()
  await expect(page.getByText(/plantings? typed in/)).toBeVisible()
  await goTo(page, 'Plants')
  const story = async () => {
    await page.getByRole('link', { name: 'N-068' }).click()
    await page.getByRole('heading', { level: 1, name: 'Hylotelephium spectabile' }).waitFor()
    return page.getByText('2 of 5, poor. Split by the hose.').count()
  }
  await expect
    .poll(async () => {
      await goTo(page, 'Plants')
      return story()
    })
    .toBe(1)
  await page.getByRole('link', { name: 'All about this kind' }).click()
  await expect(page.getByText('Where it stood')).toBeVisible()
  await expectAccessible(page, 'a taxon')
  expect(errors).toEqual([])
})

test('the application can be installed, with its own icons', async ({ page }) => {
  await page.goto('/')
  const address = await page.locator('link[rel=manifest]').getAttribute('href')
  const manifest = await (await page.request.get(`${address}`)).json()
  expect(manifest).toMatchObject({ name: 'Seasoned Border', start_url: '/', display: 'standalone' })
  for (const { src, sizes, type } of manifest.icons) {
    const icon = await page.request.get(`${src}`)
    expect([src, icon.status(), icon.headers()['content-type']]).toEqual([src, 200, type])
    if (type !== 'image/png') continue
    // Width of a PNG: the four bytes after its header's name.
    expect((await icon.body()).readUInt32BE(16)).toBe(Number(sizes.split('x')[0]))
  }
})

test('on a phone the walk is for thumbs, and fits', async ({ browser }) => {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, reducedMotion: 'reduce' })
  const page = await context.newPage()
  await enterDemo(page, 'Tobin Reeve')
  await goTo(page, 'Walk')
  await expect(page.getByText(/of 74 looked at/)).toBeVisible()
  const box = await page.locator('.walk-ratings button').first().boundingBox()
  expect(Math.min(box!.width, box!.height)).toBeGreaterThanOrEqual(48)
  await expectNoSidewaysScroll(page)
  await page.getByRole('button', { name: 'more' }).first().click()
  await expectNoSidewaysScroll(page)
  await expectAccessible(page, 'walk on a phone')
  await context.close()
})
