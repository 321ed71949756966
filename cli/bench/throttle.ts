import { setTimeout as wait } from 'node:timers/promises'

/**
 * Lets processes run for a share of the time only, by stopping them and letting them go on, one after another where there is room for
 * that: on a machine with few cores it is then they, not what they share, that there is too little of. Arguments: the share, and
 * the process ids.
 */
const PERIOD_MS = 40
const [share, ...pids] = process.argv.slice(2).map(Number) as [number, ...number[]]
const signal = (pid: number, name: 'SIGSTOP' | 'SIGCONT') => {
  try {
    process.kill(pid, name)
  } catch {
    // It has ended.
  }
}

let isOver = false
process.once('SIGTERM', () => {
  isOver = true
})
await Promise.all(
  pids.map(async (pid, i) => {
    await wait((PERIOD_MS * i) / pids.length)
    let next = performance.now()
    while (!isOver) {
      signal(pid, 'SIGCONT')
      await wait(share * PERIOD_MS)
      signal(pid, 'SIGSTOP')
      next += PERIOD_MS
      await wait(Math.max(0, next - performance.now()))
    }
    signal(pid, 'SIGCONT')
  }),
)
