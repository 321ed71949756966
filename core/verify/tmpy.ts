import { yearExcess } from './plan.ts'
for (let s = 20900; s < 20905; s++) { const t = performance.now(); const y = yearExcess(s); console.log(s, y.cost, y.least, (100 * y.excess).toFixed(2), ((performance.now() - t) / 1000).toFixed(0)) }
