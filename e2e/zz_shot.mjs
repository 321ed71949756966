// throw-away: node e2e/zz_shot.mjs 'name|path|js-or-steps'...
import { chromium } from '@playwright/test'
const W = +(process.env.W ?? 1280), H = +(process.env.H ?? 800)
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--headless','--no-sandbox','--disable-gpu','--disable-quic','--no-first-run'] })
const p = await b.newPage({ viewport: { width: W, height: H }, locale: 'en-GB', reducedMotion: 'reduce' })
p.on('pageerror', (e) => console.log('PAGEERROR', e.message)); p.on('console', (m) => m.type() === 'error' && console.log('CONSOLE', m.text()))
await p.goto('http://127.0.0.1:5180/')
await p.getByRole('button', { name: new RegExp(process.env.WHO ?? 'Marla') }).click()
await p.waitForURL(/\/g\//)
const gid = p.url().split('/g/')[1].split('/')[0]
if (process.env.DARK) await p.evaluate(() => { document.documentElement.dataset.theme = 'dark'; localStorage.setItem('theme','dark') })
for (const arg of process.argv.slice(2)) {
  const [name, path, ...rest] = arg.split('|')
  if (path) await p.goto('http://127.0.0.1:5180' + path.replace('GID', gid))
  await p.waitForTimeout(+(process.env.WAIT ?? 2500))
  const t0 = Date.now()
  for (const js of rest) { await eval('(async()=>{' + js + '})()'); await p.waitForTimeout(600) }
  await p.evaluate(() => document.fonts.ready)
  await p.screenshot({ path: '/tmp/' + name + '.png' })
  console.log(name, Date.now() - t0)
}
await b.close()
