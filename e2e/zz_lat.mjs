import { chromium } from '@playwright/test'
const b = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--headless','--no-sandbox','--disable-gpu','--disable-quic','--no-first-run'] })
const p = await b.newPage({ viewport: { width: 1280, height: 800 }, locale: 'en-GB', reducedMotion: 'reduce' })
await p.goto('http://127.0.0.1:5180/')
await p.getByRole('button', { name: /Marla/ }).click(); await p.waitForURL(/\/g\//)
await p.waitForTimeout(5000)
await p.locator('svg.plan').click({position:{x:581,y:402}}); await p.waitForTimeout(500)
const s = p.getByRole('slider').first(); await s.focus()
await p.keyboard.press('ArrowRight'); await p.waitForTimeout(2000)
const r = await p.evaluate(async () => {
  const img = () => [...document.querySelectorAll('svg.plan image')].map(i=>i.getAttribute('href')).join('')
  const el = document.activeElement; const out=[]; const frames=[]; let last=performance.now(); let on=true
  const tick=()=>{const n=performance.now(); frames.push(n-last); last=n; on&&requestAnimationFrame(tick)}; requestAnimationFrame(tick)
  for (let k=0;k<30;k++){ const before=img(); const t=performance.now()
    el.dispatchEvent(new KeyboardEvent('keydown',{key:'ArrowRight',keyCode:39,which:39,bubbles:true}))
    while(img()===before && performance.now()-t<1000) await new Promise(r=>setTimeout(r,1))
    out.push(performance.now()-t); await new Promise(r=>setTimeout(r,80)) }
  on=false
  return {out, frames: frames.sort((a,b)=>b-a).slice(0,8)}
})
console.log('median ms', r.out.sort((a,b)=>a-b)[15].toFixed(1), 'max', Math.max(...r.out).toFixed(1), 'worst frames', r.frames.map(f=>f.toFixed(0)).join(' '))
await b.close()
