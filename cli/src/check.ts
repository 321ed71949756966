import { spawn, spawnSync } from 'node:child_process'
import { readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuilt, webRoot } from './build.ts'
import { DEMO_TEMPLATE, makeDemoTemplate } from './demoTemplate.ts'
import { firstFiles, manifestOf, travelling } from './firstLoad.ts'
import { inState, projectRoot } from './paths.ts'
import { say } from './say.ts'
import { testsShare } from './testsShare.ts'

interface Count {
  passed: number
  failed: number
}

/** Format, lint, types, build, the demo, unit and integration tests, browser tests. */
export async function checkCommand(): Promise<number> {
  const total: Count = { passed: 0, failed: 0 }
  const add = (count: Count) => {
    total.passed += count.passed
    total.failed += count.failed
  }
  // Side by side: neither reads what the other writes.
  const [types, [style, built, demo]] = await Promise.all([
    step('types', ['npm', 'run', '--silent', 'types']),
    step('format and lint', ['sh', '-c', 'npm run --silent format:check && npm run --silent lint']).then(
      async (style) => [style, buildStep(), await demoStep()] as const,
    ),
  ])
  ;[types, style, built, demo.count].forEach(add)
  add(testsShareStep())
  FIRST_SCREENS.map(firstLoadStep).forEach(add)
  add(
    tests(
      'unit and integration tests',
      ['npx', '--no-install', 'vitest', 'run', '--reporter=default', '--reporter=json'],
      'vitest',
    ),
  )
  add(
    tests(
      'browser tests',
      ['npx', '--no-install', 'playwright', 'test', '--config', 'e2e/playwright.config.ts'],
      'playwright',
    ),
  )
  await demo.drop?.()
  process.stdout.write(`${total.passed} passed, ${total.failed} failed\n`)
  return total.failed > 0 ? 1 : 0
}

async function step(name: string, [program, ...args]: string[]): Promise<Count> {
  say(`check: ${name}`)
  const child = spawn(program!, args, { cwd: projectRoot, stdio: ['ignore', 2, 2], env: childEnv() })
  const ok = await new Promise<boolean>((resolve) => {
    child.once('error', () => resolve(false))
    child.once('exit', (code) => resolve(code === 0))
  })
  if (!ok) say(`check: ${name} failed`)
  return counted(ok)
}

const childEnv = (env: NodeJS.ProcessEnv = {}): NodeJS.ProcessEnv => ({
  ...process.env,
  ...env,
  FORCE_COLOR: '0',
  npm_config_update_notifier: 'false',
})

/** Fails when tests are a smaller share of the lines of TypeScript than the floor in `package.json`, which only rises. */
function testsShareStep(): Count {
  const floor = JSON.parse(readFileSync(join(projectRoot, 'package.json'), 'utf8')).testsShareFloor as number
  const share = testsShare(projectRoot)
  const percent = (part: number) => `${(100 * part).toFixed(1)} %`
  say(`check: tests are ${percent(share)} of the lines of TypeScript, ${percent(floor)} at least`)
  return counted(share >= floor)
}

/** Where people come in, and what is asked for there; the most that may travel before it is there: bytes, as they travel. */
const FIRST_SCREENS = [
  { screen: 'The sign-in', entries: ['index.html'] },
  { screen: 'Light', entries: ['index.html', 'src/comeIn.ts'] },
]
const FIRST_LOAD_MOST = 200_000

/** Fails when more travels before a screen is there than people should wait for. */
function firstLoadStep({ screen, entries }: (typeof FIRST_SCREENS)[number]): Count {
  return attempted(() => {
    const bytes = travelling(webRoot, firstFiles(manifestOf(webRoot), entries))
    const kilobytes = (n: number) => `${(n / 1000).toFixed(1)} kB`
    say(`check: ${screen} takes ${kilobytes(bytes)} at first, ${kilobytes(FIRST_LOAD_MOST)} at most`)
    return bytes <= FIRST_LOAD_MOST
  })
}

function buildStep(): Count {
  say('check: build')
  return attempted(() => {
    ensureBuilt()
    return true
  })
}

/** Loads the demo once for all that copies it. */
async function demoStep(): Promise<{ count: Count; drop?: () => Promise<void> }> {
  say('check: demo')
  try {
    const { name, drop } = await makeDemoTemplate()
    process.env[DEMO_TEMPLATE] = name
    return { count: counted(true), drop }
  } catch (error) {
    say((error as Error).message)
    return { count: counted(false) }
  }
}

const counted = (ok: boolean): Count => ({ passed: ok ? 1 : 0, failed: ok ? 0 : 1 })

/** A step that holds or does not; what it throws is said, and is one failure. */
function attempted(holds: () => boolean): Count {
  try {
    return counted(holds())
  } catch (error) {
    say((error as Error).message)
    return counted(false)
  }
}

/** Runs a test runner and counts from its JSON report; a runner that leaves none counts as one failure. */
function tests(name: string, command: string[], runner: 'vitest' | 'playwright'): Count {
  say(`check: ${name}`)
  const report = inState(`${runner}-report.json`)
  rmSync(report, { force: true })
  const ok = run([...command, ...(runner === 'vitest' ? [`--outputFile.json=${report}`] : [])], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: report,
  })
  const count = readReport(report, runner)
  if (!count) return { passed: 0, failed: 1 }
  // A runner may fail outside any test: a crash, an unhandled error.
  return !ok && count.failed === 0 ? { ...count, failed: 1 } : count
}

function readReport(file: string, runner: 'vitest' | 'playwright'): Count | undefined {
  try {
    const report = JSON.parse(readFileSync(file, 'utf8'))
    return runner === 'vitest'
      ? {
          passed: report.numPassedTests,
          failed: report.numFailedTests + (report.numPassedTests === 0 ? 1 : 0),
        }
      : { passed: report.stats.expected, failed: report.stats.unexpected + report.stats.flaky }
  } catch {
    return undefined
  }
}

/** Everything a step prints goes to standard error, so that the count stays the last line of standard output. */
function run([program, ...args]: string[], env: NodeJS.ProcessEnv = {}): boolean {
  const result = spawnSync(program!, args, {
    cwd: projectRoot,
    stdio: ['ignore', 2, 2],
    env: childEnv(env),
  })
  return result.status === 0
}
