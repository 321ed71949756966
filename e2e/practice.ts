import { expect, test as base } from '@playwright/test'
import { spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { join } from 'node:path'

const border = join(import.meta.dirname, '..', 'border')

/** The demo with its work worked out, that every flow's own begins as a copy of. */
export const TEMPLATE = 'e2etemplate'

/** Two checks on one machine keep apart. */
export const FIRST_PORT = 20_000 + (process.ppid % 500) * 20

/** One practice on a server and a database of its own, that can be killed and started again. */
export class Practice {
  private process: ChildProcess | undefined
  private at = ''

  /** @param options of `./border scratch`, without its port */
  constructor(
    private readonly options: string[],
    private readonly port: number,
  ) {}

  get url(): string {
    return this.at
  }

  async start(): Promise<void> {
    const running = spawn(border, ['scratch', ...this.options, '--port', String(this.port)], {
      stdio: ['ignore', 'pipe', 'inherit'],
      detached: true,
    })
    this.process = running
    // Its address is the first thing that it says, once it answers.
    const said = await Promise.race([once(running.stdout, 'data'), once(running, 'exit').then(() => [])])
    this.at = String(said[0] ?? '').trim()
    if (!this.at) throw new Error(`./border scratch ${this.options.join(' ')} did not start`)
  }

  /** SIGKILL as a power cut would: nothing is finished, nobody is told. */
  async kill(signal: NodeJS.Signals = 'SIGKILL'): Promise<void> {
    const { process: running } = this
    if (!running?.pid || running.exitCode !== null || running.signalCode !== null) return
    const ended = once(running, 'exit')
    // Stopped in order, it stops its children itself; killed, none of them is left.
    process.kill(signal === 'SIGKILL' ? -running.pid : running.pid, signal)
    await ended
    this.process = undefined
  }
}

export const dropKept = (name: string): void =>
  void spawnSync(border, ['scratch', '--drop', name], { stdio: ['ignore', 'ignore', 'inherit'] })

interface Options {
  /** What a flow begins from: a copy of the demo as it is at first, or a practice that nobody has set up yet. */
  begins: 'demo' | 'empty'
  /** Whether its database outlives its server, which the flow kills. */
  outlives: boolean
}

/** A test whose practice is nobody else's: `page.goto('/')` leads there. */
export const test = base.extend<Options & { practice: Practice }>({
  begins: ['demo', { option: true }],
  outlives: [false, { option: true }],
  practice: [
    async ({ begins, outlives }, use, { parallelIndex, testId }) => {
      const kept = outlives ? `e2e${testId.replaceAll(/[^a-z0-9]/g, '').slice(-20)}` : undefined
      const practice = new Practice(
        [...(begins === 'demo' ? ['--demo', '--copy', TEMPLATE] : []), ...(kept ? ['--keep', kept] : [])],
        FIRST_PORT + 10 * parallelIndex,
      )
      await practice.start()
      await use(practice)
      await practice.kill('SIGTERM')
      if (kept) dropKept(kept)
    },
    { timeout: 180_000 },
  ],
  baseURL: async ({ practice }, use) => use(practice.url),
})

export { expect }
