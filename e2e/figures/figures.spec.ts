import type { BrowserContext, Locator, Page } from '@playwright/test'
import { expect, test } from '../practice.ts'
import { enterDemo } from '../steps.ts'

/** The most that the badges, and all that is read again after a write, may weigh on the wire, bytes. */
const MOST_BADGES = 5_000
const MOST_AFTER_WRITE = 60_000
/** From a click in the navigation to the screen’s content, milliseconds, once the screen has been opened before. */
const MOST_TO_CONTENT_MS = 400
/** The most that a first visit takes to be drawn, milliseconds, on a sixth of this machine, with nothing kept from before. */
const MOST_TO_FIRST_MS = 2_000
const SLOWED = 6

interface Travelled {
  path: string
  /** As it travelled, with its headers, and unpacked. */
  bytes: number
  unpacked: number
}

/** What answers of the server have weighed since the last time it was asked. */
async function weigh(page: Page): Promise<() => Travelled[]> {
  const wire = await page.context().newCDPSession(page)
  await wire.send('Network.enable')
  const paths = new Map<string, string>()
  const unpacked = new Map<string, number>()
  let travelled: Travelled[] = []
  wire.on('Network.requestWillBeSent', ({ requestId, request }) => paths.set(requestId, request.url))
  wire.on('Network.dataReceived', ({ requestId, dataLength }) =>
    unpacked.set(requestId, (unpacked.get(requestId) ?? 0) + dataLength),
  )
  wire.on('Network.loadingFinished', ({ requestId, encodedDataLength }) => {
    const path = /\/api(\/.*)$/.exec(paths.get(requestId) ?? '')?.[1]
    if (path)
      travelled.push({
        path: path.replace(/[0-9a-f]{8}-[0-9a-f-]{27}/g, ':id'),
        bytes: encodedDataLength,
        unpacked: unpacked.get(requestId) ?? 0,
      })
  })
  return () => {
    const since = travelled
    travelled = []
    return since
  }
}

const sum = (list: readonly Travelled[]) => list.reduce((n, t) => n + t.bytes, 0)
const told = (what: string, list: readonly Travelled[]) =>
  process.stdout.write(
    `${what}: ${sum(list)} bytes; ${list.map((t) => `${t.path} ${t.bytes} (${t.unpacked} unpacked)`).join(', ')}\n`,
  )

/** Milliseconds from a click to the first picture with the content. */
const toContent = (page: Page, name: string, content: string) =>
  page.evaluate(
    ([name, content]) =>
      new Promise<number>((resolve) => {
        const link = [...document.querySelectorAll<HTMLElement>('.frame-links a')].find(
          (a) => a.textContent.trim().replace(/ \d+$/, '') === name,
        )!
        const began = performance.now()
        link.click()
        const look = () => {
          const isThere =
            document.querySelector('h1')?.textContent === name && document.querySelector(content!)
          if (isThere) requestAnimationFrame(() => setTimeout(() => resolve(performance.now() - began)))
          else setTimeout(look, 5)
        }
        look()
      }),
    [name, content],
  )

const screens: [name: string, content: string][] = [
  ['Verdicts', '.verdict-split'],
  ['Season', '#job'],
  ['Record', '.record-table'],
  ['Plants', '.ant-table-row'],
  ['Now', '.now-jobs li'],
  ['Walk', '.walk-sync'],
  ['Plan', '.frame-main svg'],
  ['Set-up', '#garden-itself'],
  ['Light', '.outside-row'],
]

/**
 * Milliseconds from the address to the first picture with an element: the browser's own first contentful paint where the element
 * stood in the frame that it painted, else the first moment after such a frame.
 */
async function firstDrawn(page: Page, address: string, element: string): Promise<number> {
  const wire = await page.context().newCDPSession(page)
  await wire.send('Network.enable')
  await wire.send('Network.clearBrowserCache')
  await wire.send('Emulation.setCPUThrottlingRate', { rate: SLOWED })
  await page.addInitScript((element) => {
    const look = () => {
      if (!document.querySelector(element)) return requestAnimationFrame(look)
      performance.mark('stood')
      return requestAnimationFrame(() =>
        setTimeout(() => {
          performance.mark('after')
          reportError(new Error('drawn'))
        }),
      )
    }
    look()
  }, element)
  // Nothing is asked of the page before: what asks would itself take a tenth of a second there.
  const drawn = page.waitForEvent('pageerror', ({ message }) => message === 'drawn')
  await page.goto(address, { waitUntil: 'commit' })
  await drawn
  const ms = await page.evaluate(() => {
    const at = (name: string) => performance.getEntriesByName(name)[0]?.startTime ?? 0
    const painted = at('first-contentful-paint')
    return painted >= at('stood') ? painted : at('after')
  })
  await wire.send('Emulation.setCPUThrottlingRate', { rate: 1 })
  return Math.round(ms)
}

test('a first visit is drawn soon on a slow device', async ({ browser, baseURL }) => {
  const visit = async (
    what: string,
    address: string,
    element: string,
    state?: Awaited<ReturnType<BrowserContext['storageState']>>,
  ) => {
    const tried: number[] = []
    for (let i = 0; i < 3; i++) {
      const context = await browser.newContext({ baseURL, ...(state && { storageState: state }) })
      tried.push(await firstDrawn(await context.newPage(), address, element))
      await context.close()
    }
    process.stdout.write(`${what}, first drawn at a sixth: ${tried.join(', ')} ms\n`)
    expect.soft([what, Math.min(...tried) <= MOST_TO_FIRST_MS]).toEqual([what, true])
  }
  await visit('the sign-in', '/', '.whole button')
  const known = await browser.newContext({ baseURL })
  const page = await known.newPage()
  await enterDemo(page)
  await page.getByText('working out the light').waitFor({ state: 'hidden' })
  await page.waitForTimeout(15_000)
  const address = new URL(page.url()).pathname
  await visit('Light, its plan', address, '.light-plans svg', await known.storageState())
  await known.close()
})

test('a click shows its screen at once, and what travels is small', async ({ page }) => {
  const since = await weigh(page)
  await enterDemo(page)
  // Until everything has been worked out once, and the night's round is over.
  await expect(page.locator('.frame-links i')).toHaveCount(4)
  await page.getByText('working out the light').waitFor({ state: 'hidden' })
  await page.waitForTimeout(15_000)
  const first = since()
  told('the first screen', first)
  const badges = first.filter((t) => /^\/gardens\/:id\/now/.test(t.path))
  told('badges and ribbon', badges)
  expect
    .soft(badges.length > 0 && badges.every((t) => t.bytes < MOST_BADGES && t.unpacked < MOST_BADGES))
    .toBe(true)

  const warm = new Map<string, number>()
  for (const round of ['first', 'again', 'once more'])
    for (const [name, content] of screens) {
      const ms = Math.round(await toContent(page, name, content))
      process.stdout.write(`${name}, ${round}: ${ms} ms\n`)
      if (round !== 'first') warm.set(name, Math.min(ms, warm.get(name) ?? ms))
      await page.waitForTimeout(1_000)
    }
  expect.soft([...warm].filter(([, ms]) => ms >= MOST_TO_CONTENT_MS)).toEqual([])

  const afterWrite = async (what: string, write: () => Promise<void>, said: RegExp) => {
    await page.waitForTimeout(3_000)
    since()
    const began = Date.now()
    await write()
    await page.getByText(said).first().waitFor()
    const waited = Date.now() - began
    await page.waitForTimeout(6_000)
    const read = since().filter((t) => !/\/versions$/.test(t.path) || t.bytes > 0)
    told(`${what}, said after ${waited} ms`, read)
    expect.soft([what, sum(read) < MOST_AFTER_WRITE]).toEqual([what, true])
  }
  await toContent(page, 'Verdicts', '.verdict-split')
  await afterWrite(
    'a move accepted',
    () => page.getByRole('button', { name: /^Agree: / }).click(),
    /^Recorded; its jobs/,
  )
  await toContent(page, 'Now', '.now-jobs li')
  await afterWrite(
    'something off the bench',
    () => page.getByRole('button', { name: 'Given away' }).first().click(),
    /^Off the bench/,
  )
  await toContent(page, 'Season', '#job')
  await afterWrite(
    'a job done',
    async () => {
      await page
        .getByRole('button', { name: /^Record/ })
        .first()
        .click()
      await page.getByRole('button', { name: 'Record', exact: true }).click()
    },
    /✓ Recorded|Done on|Recorded/,
  )
})

/** From a pointer’s move to the light that follows it, in the middle of all, and the longest frame of twenty but one, milliseconds. */
const MOST_LIGHT_BEHIND_MS = 50
const MOST_FRAME_MS = 50

interface Watched {
  frameP95: number
  frames: number
  lightMedian: number | undefined
  lights: number
}

/** Frames, and how far pictures on the plan are behind the pointer, while something is done. */
async function watched(page: Page, does: () => Promise<void>): Promise<Watched> {
  await page.evaluate(() => {
    const w = { frames: [] as number[], lights: [] as number[], moved: 0, isOver: false }
    Object.assign(window, { watched: w })
    let last = 0
    const tick = (t: number) => {
      if (last) w.frames.push(t - last)
      last = t
      if (!w.isOver) requestAnimationFrame(tick)
    }
    requestAnimationFrame(tick)
    addEventListener('pointermove', () => (w.moved = performance.now()), true)
    new MutationObserver((changes) => {
      const isPicture = (n: Node) => n.nodeName === 'image' || (n as Element).querySelector?.('image')
      if (changes.some((c) => isPicture(c.target) || [...c.addedNodes].some(isPicture)))
        w.lights.push(performance.now() - w.moved)
    }).observe(document.querySelector('.plan')!, {
      subtree: true,
      childList: true,
      attributes: true,
      attributeFilter: ['href'],
    })
  })
  await does()
  const { frames, lights } = await page.evaluate(() => {
    const w = (window as unknown as { watched: { frames: number[]; lights: number[]; isOver: boolean } })
      .watched
    w.isOver = true
    return w
  })
  const at = (list: number[], share: number) =>
    [...list].sort((a, b) => a - b)[Math.floor(share * (list.length - 1))]
  return {
    frameP95: at(frames, 0.95)!,
    frames: frames.length,
    lightMedian: at(lights, 0.5),
    lights: lights.length,
  }
}

test('the light follows a corner that is dragged, and 500 plantings stay fluid', async ({ page }) => {
  await enterDemo(page)
  const toPlan = async () => {
    await page.goto(page.url().replace(/\/g\/([^/]+)\/.*/, '/g/$1/plan'))
    await page.locator('.plan-planting').first().waitFor()
    await page.waitForTimeout(3_000)
  }
  const corner = async (part: RegExp) => {
    await page.getByRole('button', { name: part }).click()
    const box = (await page.locator('.draft-handle rect').first().boundingBox())!
    return { x: box.x + 5, y: box.y + 5 }
  }
  /** In a round about where it was, as a hand goes. */
  const drag = ({ x, y }: { x: number; y: number }, reach: number) =>
    watched(page, async () => {
      for (let i = 0; i < 90; i++) {
        await page.mouse.move(
          x - reach * Math.abs(Math.sin(i / 15)),
          y - reach * 0.7 * Math.abs(Math.sin(i / 10)),
        )
        await page.waitForTimeout(10)
      }
    })
  for (const [part, reach] of [
    [/Sail loft/, 60],
    [/Long border/, 30],
  ] as const) {
    await toPlan()
    const at = await corner(part)
    await page.getByLabel('Sun').check()
    await page.waitForTimeout(4_000)
    await page.mouse.move(at.x, at.y)
    await page.mouse.down()
    await page.mouse.move(at.x - 6, at.y - 6)
    await page.waitForTimeout(1_500)
    const { lightMedian, ...seen } = await drag(at, reach)
    await page.mouse.up()
    process.stdout.write(`${part.source}: light ${lightMedian} ms behind, ${JSON.stringify(seen)}\n`)
    expect
      .soft([part.source, lightMedian! < MOST_LIGHT_BEHIND_MS, seen.frameP95 < MOST_FRAME_MS])
      .toEqual([part.source, true, true])
  }
  const status = await page.evaluate(async () => {
    const garden = `/api/gardens/${/\/g\/([^/]+)/.exec(location.pathname)![1]}`
    const { csrfToken } = await (await fetch('/api/session')).json()
    const view = await (await fetch(garden)).json()
    const placeId = view.features.find((f: { name: string }) => f.name === 'Long border').id
    const plantings = Array.from({ length: 430 }, (_, i) => ({
      tag: `X-${i}`,
      taxonBotanical: view.plantings[i % 40].taxon.botanical,
      placeId,
      count: 3,
      plantedOn: '2022-05-01',
      source: 'bought',
      x: 11 + ((i * 79) % 1000) / 100,
      y: -1.8 + ((i * 104_729) % 400) / 100,
    }))
    const headers = {
      'content-type': 'application/json',
      'x-csrf-token': csrfToken,
      'idempotency-key': crypto.randomUUID(),
    }
    return (
      await fetch(`${garden}/plantings`, { method: 'POST', headers, body: JSON.stringify({ plantings }) })
    ).status
  })
  expect(status).toBe(200)
  await toPlan()
  await expect.poll(() => page.locator('.plan-planting').count()).toBeGreaterThan(500)
  const plan = (await page.locator('.plan').boundingBox())!
  const moved = await watched(page, async () => {
    await page.mouse.move(plan.x + 200, plan.y + 300)
    await page.mouse.down()
    for (let i = 0; i < 60; i++) {
      await page.mouse.move(plan.x + 200 + 3 * i, plan.y + 300 - i)
      await page.waitForTimeout(10)
    }
    await page.mouse.up()
  })
  const at = await corner(/^Long border/)
  await page.mouse.move(at.x, at.y)
  await page.mouse.down()
  const dragged = await drag(at, 30)
  await page.mouse.up()
  process.stdout.write(
    `500 plantings: moved ${JSON.stringify(moved)}, a corner dragged ${JSON.stringify(dragged)}\n`,
  )
  expect.soft(moved.frameP95 < 2 * MOST_FRAME_MS).toBe(true)
  expect.soft(dragged.frameP95 < MOST_FRAME_MS).toBe(true)
})

/** A scheme of the demo, its layout shown, with as many of its smallest plants as it takes. @returns how many plants it has */
async function fiveHundredPlants(page: Page): Promise<number> {
  await enterDemo(page)
  await page.goto(page.url().replace(/light.*/, 'rework'))
  await page.getByRole('link', { name: 'Courtyard border' }).click()
  await page.getByText('Layout', { exact: true }).click()
  const avens = page.getByRole('spinbutton', { name: 'How many Chilean avens' })
  await avens.fill('190')
  await avens.press('Enter')
  const circles = page.locator('.bed-plants circle')
  await expect.poll(() => circles.count()).toBeGreaterThanOrEqual(500)
  return circles.count()
}

/** What the browser has worked since it began, milliseconds, by its own count of task time. */
async function workOf(page: Page): Promise<() => Promise<number>> {
  const wire = await page.context().newCDPSession(page)
  await wire.send('Performance.enable')
  return async () => {
    const { metrics } = await wire.send('Performance.getMetrics')
    return metrics.find((m) => m.name === 'TaskDuration')!.value * 1000
  }
}

/** Moves a slider as a hand would, and waits until what it shows has been drawn. */
const slideTo = (slider: Locator, value: number) =>
  slider.evaluate(async (input: HTMLInputElement, to) => {
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!
    set.call(input, String(to))
    input.dispatchEvent(new Event('input', { bubbles: true }))
    await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))
  }, value)

/** The most that may be worked for a frame while a drift is dragged, milliseconds. */
const MOST_A_FRAME_MS = 16

test('a drift is dragged among five hundred plants, and the others make room in every frame', async ({
  page,
}) => {
  const plants = await fiveHundredPlants(page)
  const worked = await workOf(page)
  const drifts = page.locator('.bed-drift')
  const box = (await drifts.nth(2).boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  await page.mouse.move(x, y)
  await page.mouse.down()
  await page.mouse.move(x + 20, y)
  await page.evaluate(() => {
    const told = { frames: 0 }
    Object.assign(globalThis, { told })
    const tick = () => {
      told.frames++
      requestAnimationFrame(tick)
    }
    requestAnimationFrame(tick)
  })
  const before = await worked()
  for (let i = 0; i < 120; i++) await page.mouse.move(x + 20 + 2 * i, y + 15 * Math.sin(i / 9))
  const frames = await page.evaluate(
    () => (globalThis as unknown as { told: { frames: number } }).told.frames,
  )
  const eachMs = ((await worked()) - before) / frames
  await page.mouse.up()
  process.stdout.write(
    `dragging among ${plants} plants: ${eachMs.toFixed(1)} ms of work a frame, ${frames} frames\n`,
  )
  expect(eachMs).toBeLessThanOrEqual(MOST_A_FRAME_MS)
})

/** The most that a front view may take to be drawn anew after a change, milliseconds. */
const MOST_REDRAWN_MS = 50

test('five hundred plants are seen from the path, and the weeks go by at a frame’s pace', async ({
  page,
}) => {
  await fiveHundredPlants(page)
  await page.getByText('From the path', { exact: true }).click()
  await page.locator('.front-view canvas').waitFor()
  await page.waitForTimeout(1500)
  const worked = await workOf(page)
  const slider = page.getByRole('slider', { name: 'Week of the year' })
  const round = async () => {
    const each: number[] = []
    for (let week = 0; week < 52; week++) {
      const before = await worked()
      await slideTo(slider, week)
      each.push((await worked()) - before)
    }
    return each.toSorted((a, b) => a - b)
  }
  const told = (of: readonly number[]) =>
    `${of[26]!.toFixed(1)} ms in the middle, ${of.at(-1)!.toFixed(1)} at most`
  const first = await round()
  const again = await round()
  // A plant more and one less, by turns: the ground is shared out anew, and all of it drawn.
  const avens = page.getByRole('spinbutton', { name: 'How many Chilean avens' })
  const changes: number[] = []
  for (let turn = 0; turn < 9; turn++) {
    await avens.fill(String(189 + (turn % 2)))
    await page.waitForTimeout(1500)
    const before = await worked()
    await avens.evaluate(async (field) => {
      field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter', keyCode: 13, bubbles: true }))
      await new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done)))
    })
    changes.push((await worked()) - before)
  }
  changes.sort((a, b) => a - b)
  process.stdout.write(
    `weeks for the first time: ${told(first)}; again: ${told(again)}; after a change: ${changes.map((c) => c.toFixed(0)).join(' ')} ms\n`,
  )
  expect.soft(first[26]).toBeLessThanOrEqual(MOST_REDRAWN_MS)
  expect.soft(changes[4]).toBeLessThanOrEqual(MOST_REDRAWN_MS)
  expect.soft(again[26]).toBeLessThanOrEqual(MOST_A_FRAME_MS)
})

/** Portraits of forty containers may take so much to be drawn for the first time, milliseconds. */
const MOST_FORTY_POTS_MS = 300

test('forty containers are drawn with what grows in them', async ({ page }) => {
  await enterDemo(page)
  await page.getByLabel('Garden').selectOption({ label: 'Almshouse Terrace' })
  await page.waitForURL(/\/g\//)
  const gardenId = /\/g\/([^/]+)/.exec(page.url())![1]!
  const at = `/api/gardens/${gardenId}`
  const { csrfToken } = (await (await page.request.get('/api/session')).json()) as { csrfToken: string }
  const post = async (path: string, data: object) => {
    const answer = await page.request.post(`${at}${path}`, {
      data,
      headers: { 'idempotency-key': crypto.randomUUID(), 'x-csrf-token': csrfToken },
    })
    expect(answer.status(), await answer.text()).toBe(200)
  }
  const more = Array.from({ length: 14 }, (_, i) => `Row pot ${i + 1},${2 + 0.7 * i},6,tapered,0.4,0.42,0.38`)
  await post('/containers-file', {
    csv: ['name,x_m,y_m,shape,diameter_m,rim_height_m,depth_m', ...more].join('\n'),
  })
  const { features } = (await (await page.request.get(at)).json()) as {
    features: { id: string; name: string }[]
  }
  for (const { id } of features.filter((f) => f.name.startsWith('Row pot ')))
    await post('/containers/fills', {
      containerId: id,
      replaces: null,
      on: '2026-05-20',
      name: 'Summer 2026',
      season: 'summer',
      mix: [{ name: 'compost', parts: 1 }],
      renewed: 1,
      in: [
        { taxonBotanical: 'Salvia farinacea', count: 1, source: 'bought', role: 'focal' },
        { taxonBotanical: 'Tagetes patula', count: 3, source: 'bought', role: 'filler' },
        { taxonBotanical: 'Lobelia erinus', count: 3, source: 'bought', role: 'trailer' },
      ],
    })
  await page.goto(`/g/${gardenId}/pots`)
  await expect(page.locator('.pots-one')).toHaveCount(40)
  await page.waitForTimeout(1500)
  const worked = await workOf(page)
  const slider = page.getByRole('slider', { name: 'Week of the year' })
  const toWeek = async (week: number) => {
    const before = await worked()
    await slideTo(slider, week)
    return (await worked()) - before
  }
  const first: number[] = []
  const again: number[] = []
  // Weeks of summer, in which all of them are full.
  for (const week of [22, 24, 26, 28, 30, 32, 34]) first.push(await toWeek(week))
  for (const week of [22, 24, 26, 28, 30, 32, 34]) again.push(await toWeek(week))
  const middle = (of: number[]) => of.toSorted((a, b) => a - b)[3]!
  process.stdout.write(
    `portraits of forty pots: a week for the first time ${middle(first).toFixed(0)} ms in the middle, again ${middle(again).toFixed(0)}\n`,
  )
  expect.soft(middle(first)).toBeLessThanOrEqual(MOST_FORTY_POTS_MS)
})
