import { expect, test as base } from '@playwright/test'
import { scratchDatabase } from '../cli/src/databases.ts'
import { DEMO_TEMPLATE } from '../cli/src/demoTemplate.ts'
import { firstPortOf, freeOnLoopback } from '../cli/src/ports.ts'
import { prepareApart } from '../cli/src/prepareApart.ts'
import { scratchServer } from '../cli/src/scratchServer.ts'
import { beginServing, type Serving } from '../cli/src/serve.ts'

interface Begins {
  /** The database of the demo that its own begins as a copy of; absent: it begins with nothing. */
  demo?: string | undefined
  port: number
}

/** One practice on a server and a database of its own, that can be killed and started again. */
export class Practice {
  private serving: Serving | undefined

  private constructor(
    private readonly begins: Begins,
    private readonly database: Awaited<ReturnType<typeof scratchDatabase>>,
  ) {}

  static async begin(begins: Begins): Promise<Practice> {
    const practice = new Practice(begins, await scratchDatabase({ copyOf: begins.demo }))
    try {
      if (!begins.demo) await prepareApart(practice.database.url, false)
      await practice.start()
    } catch (error) {
      await practice.database.drop()
      throw error
    }
    return practice
  }

  get url(): string {
    return this.serving!.address
  }

  async start(): Promise<void> {
    const at = await freeOnLoopback(this.begins.port)
    this.serving = await beginServing(this.database.url, at, scratchServer(this.begins.demo !== undefined))
    if (!(await this.serving.answers)) throw new Error('The server of a flow did not answer')
  }

  /** As a power cut would. */
  async kill(): Promise<void> {
    await this.serving?.end('SIGKILL')
  }

  /** Its server ends, and its database is dropped. */
  async end(): Promise<void> {
    await this.serving?.end('SIGTERM')
    await this.database.drop()
  }
}

interface Options {
  /** What a flow begins from: a copy of the demo as it is at first, or a practice that nobody has set up yet. */
  begins: 'demo' | 'empty'
}

/** A test whose practice is nobody else's: `page.goto('/')` leads there. */
export const test = base.extend<Options & { practice: Practice }>({
  begins: ['demo', { option: true }],
  practice: [
    async ({ begins }, use, { parallelIndex }) => {
      const practice = await Practice.begin({
        demo: begins === 'demo' ? process.env[DEMO_TEMPLATE] : undefined,
        port: firstPortOf(process.ppid) + 10 * parallelIndex,
      })
      await use(practice)
      await practice.end()
    },
    { timeout: 180_000 },
  ],
  baseURL: async ({ practice }, use) => use(practice.url),
})

export { expect }
