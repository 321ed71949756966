import { addDays, generateWeather, patternAt } from '@border/core'
import { createServer, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { askHistory, findForecast, WeatherSilent } from '../store/weatherService.ts'
import { testApp, type TestApp } from './practice.ts'

const TODAY = '2026-09-15'
const PLACE = { latitude: 51.5, longitude: 0 }
const record = generateWeather(patternAt({ latitude: 51.5, longitude: 0 }), 2026, 2026)
const from = (day: string, days: number) => {
  const i = record.findIndex((d) => d.day === day)
  return record.slice(i, i + days).map((d) => ({ ...d, rainChance: 0.3, spreadC: 2 }))
}
const honest = { issued: TODAY, days: from(TODAY, 10) }
type Answer = typeof honest

let app: TestApp
let service: Server
let address: string
/** What is answered at an address: a body, or what is done instead of answering. */
const answers = new Map<string, unknown | ((res: ServerResponse) => void)>()

beforeAll(async () => {
  app = await testApp()
  service = createServer((req, res) => {
    const answer = answers.get(req.url!.split('/')[1]!)
    if (typeof answer === 'function') return answer(res)
    res.setHeader('content-type', 'application/json')
    res.end(typeof answer === 'string' ? answer : JSON.stringify(answer))
  })
  await new Promise<void>((resolve) => service.listen(0, '127.0.0.1', resolve))
  address = `http://127.0.0.1:${(service.address() as AddressInfo).port}`
})
afterAll(async () => {
  service.closeAllConnections()
  service.close()
  await app.stop()
})

const keptAnswers = async () => Number((await app.db('computed').count('* as n').first())!.n)
const isTold = (name: string, answer: unknown) => {
  answers.set(name, answer)
  return `${address}/${name}`
}
const without = (key: keyof Answer['days'][number]) => {
  const [first, ...rest] = honest.days
  const { [key]: _, ...less } = first!
  return { ...honest, days: [less, ...rest] }
}
const withFirst = (more: Record<string, unknown>) => {
  const [first, ...rest] = honest.days
  return { ...honest, days: [{ ...first, ...more }, ...rest] }
}

const lies: Record<string, unknown> = {
  hot: withFirst({ maxC: 1e300 }),
  cold: withFirst({ minC: -1e300 }),
  upsideDown: withFirst({ minC: 20, maxC: 10 }),
  drownedByHalf: withFirst({ rainMm: 5000 }),
  dryerThanDry: withFirst({ rainMm: -1 }),
  surerThanSure: withFirst({ rainChance: 40 }),
  noDay: withFirst({ day: 'not a day' }),
  longAgo: withFirst({ day: '0000-01-01' }),
  wordsForNumbers: withFirst({ maxC: '20' }),
  nothingOfRain: without('rainMm'),
  issuedElsewhere: { ...honest, issued: addDays(TODAY, -3) },
  yesterday: { ...honest, days: from(addDays(TODAY, -1), 10) },
  twice: { ...honest, days: [honest.days[0], ...honest.days.slice(0, 9)] },
  backwards: { ...honest, days: [...honest.days].reverse() },
  forEver: { ...honest, days: Array.from({ length: 800_000 }, () => 1) },
  long: ' '.repeat(3_000_000),
  noJson: '<html>',
  cutOff: JSON.stringify(honest).slice(0, -5),
  nothing: null,
  aList: [],
}

describe('the days ahead', () => {
  it('are never asked for while something is held: it would wait as long as the service does', async () => {
    await app.db.transaction(async (trx) => {
      await expect(findForecast(trx, PLACE, TODAY)).rejects.toThrow(/before anything is held/)
    })
  })

  it('are taken of a service that tells them', async () => {
    const told = await findForecast(app.db, PLACE, TODAY, isTold('honest', honest))
    expect(told).toMatchObject({ ok: true, issued: TODAY, isSimulated: false })
    expect(told.ok && told.days.map((d) => [d.day, d.maxC])).toEqual(honest.days.map((d) => [d.day, d.maxC]))
  })

  it.each(Object.keys(lies))('are none of what cannot be: %s', async (name) => {
    const before = await keptAnswers()
    const begun = performance.now()
    const told = await findForecast(app.db, PLACE, TODAY, isTold(name, lies[name]))
    expect(told).toEqual({ ok: false, why: 'The weather service answers with what is no weather.' })
    expect(performance.now() - begun).toBeLessThan(20_000)
    // Nothing of it is kept, and it is not asked again and again.
    answers.set(name, honest)
    expect(await findForecast(app.db, PLACE, TODAY, `${address}/${name}`)).toEqual(told)
    expect(await keptAnswers()).toBe(before)
  })

  it('are not waited for where none come', async () => {
    const begun = performance.now()
    const slow = isTold('slow', (res: ServerResponse) => void res.write('{"days":['))
    expect(await findForecast(app.db, PLACE, TODAY, slow)).toEqual({
      ok: false,
      why: 'The weather service does not answer.',
    })
    expect(performance.now() - begun).toBeLessThan(20_000)
  })
})

describe('the days on record', () => {
  const days = (answer: unknown, name: string) =>
    askHistory(PLACE, TODAY, addDays(TODAY, 9), isTold(name, answer))

  it('are taken of a service that tells them', async () => {
    expect((await days(honest, 'record')).days).toHaveLength(10)
  })

  it('are none of what cannot be, and none that were not asked for', async () => {
    const untrue = ['hot', 'noDay', 'twice', 'backwards', 'yesterday', 'forEver', 'nothing'] as const
    for (const name of untrue)
      await expect(days(lies[name], `record-${name}`), name).rejects.toThrow(WeatherSilent)
    await expect(days({ days: from(TODAY, 12) }, 'record-more')).rejects.toThrow(WeatherSilent)
  })
})
