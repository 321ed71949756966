import { seasonExcess, yearExcess } from '/work/main/core/verify/plan.ts'
const f=Number(process.argv[2])
for (let s=f;s<f+4;s++){const e=await seasonExcess(s);process.stdout.write(`season ${s} ${e.cost} ${e.least} ${(100*e.excess).toFixed(2)}\n`)}
for (let s=f;s<f+5;s++){const t=Date.now();const e=yearExcess(s);process.stdout.write(`year ${s} ${e.cost} ${e.least} ${(100*e.excess).toFixed(2)} ${Date.now()-t} ms\n`)}
