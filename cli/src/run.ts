import { sunCommand } from './files.ts'
import { lightCommand } from './light.ts'
import { recordCommand } from './record.ts'
import { rulesCommand } from './rules.ts'
import { BadInput, Misuse, say } from './say.ts'
import { scheduleCommand } from './schedule.ts'

const usage = `Seasoned Border

  ./border demo         sets up, loads the demo and serves it on http://127.0.0.1:5180, or where PORT and HOST say
  ./border start        the same with your own practice, empty at first
  ./border stop         stops what demo and start started, and the database
  ./border reset-demo   puts the demo back as it was
  ./border scratch      serves a throw-away practice (--demo: a throw-away demo) until stopped; --port N;
                        --keep NAME: one that stays and is found again by its name, until --drop NAME;
                        --copy NAME: begins as a copy of a kept one that nobody is serving
  ./border check        formats, lint, types, unit, integration and browser tests

  ./border import FOLDER [--into practice|demo] [--as EMAIL] [--dry-run] [--json]
                        a garden from plan.geojson, plantings.csv and weather.csv
  ./border light PLAN.geojson --points POINTS.csv --dates DAY[,DAY...] [--json]
                        hours of direct sun at points
  ./border light PLAN.geojson --field DAY [--season] [--standing DAY] [--less DAY] [--cell M] [--geojson|--json]
                        the same for every cell of the beds, or the difference to another day's garden
  ./border light PLAN.geojson --plantings PLANTINGS.csv --affected THEN,NOW | --ahead DAY[,YEARS] [--json]
                        plantings outside the light they like, or that will leave it
  ./border light PLAN.geojson --explain [--readings READINGS.csv] [--log LIGHT.csv --at X,Y[,Z]] [--zone ZONE] [--json]
                        which unrecorded change accounts for what was seen
  ./border light PLAN.geojson --simulate-log --at X,Y[,Z] --from DAY [--days N] [--seed N]
                        what a light logger standing there would write
  ./border rules explain --taxon NAME --garden FOLDER|PLAN.geojson [--weather FILE] [--on DAY]
                        [--place bed|container] [--school ID=CHOICE] [--json]
                        what the rules say of a kind of plant there: every window with the reason for each date
  ./border rules list [--json]
                        the shipped rules of care, each as a sentence
  ./border record FOLDER [--season YEAR] [--on DAY] [--json]
                        from plan.geojson, plantings.csv, observations.csv and weather.csv: how each planting did, what is
                        plant, place and year and what cannot be told, declines, and the bloom of a season
  ./border verdicts FOLDER [--on DAY] [--then DAY] [--json]
                        from plan.geojson and, where they are there, plantings.csv, observations.csv, weather.csv and soil.csv:
                        what is proposed for each planting with its remedies and reasons, what is suspected of each place, and
                        the work of the coming year; as the screens say it
  ./border pots POTS.json [--json]
                        containers: what each holds, weighs and drinks, its light and faults, and how they come through an
                        absence
  ./border rework REWORK.json [--json]
                        for a place to be renovated: where kinds would do well, where what leaves could go, palettes that
                        keep the wishes, divisions, quantities and growth
  ./border schedule SEASON.json [--seed N] [--rounds N] [--json]
                        the best plan found of jobs, windows, people and weather; the same file, the same plan
  ./border sun --lat DEG --lon DEG --at INSTANT [--json]
                        where the sun stands

Formats: docs/formats.md. Exit codes: 0 done, 1 bad input, 2 misuse.`

type Command = (args: string[]) => Promise<number | string> | number | string

/** What needs the database and the server is loaded only when it is called for. */
const serving = (name: keyof typeof import('./serving.ts')): Command => {
  return async (args) => (await import('./serving.ts'))[name](args)
}

/** Each subcommand: what it prints on standard output, or its exit code. */
const commands: Record<string, Command> = {
  demo: serving('demoCommand'),
  start: serving('startCommand'),
  stop: serving('stopCommand'),
  'reset-demo': serving('resetDemoCommand'),
  scratch: serving('scratchCommand'),
  check: async () => (await import('./check.ts')).checkCommand(),
  import: async (args) => (await import('./importFolder.ts')).importCommand(args),
  light: lightCommand,
  pots: async (args) => (await import('./pots.ts')).potsCommand(args),
  record: recordCommand,
  rules: rulesCommand,
  rework: async (args) => (await import('./rework.ts')).reworkCommand(args),
  schedule: scheduleCommand,
  sun: sunCommand,
  verdicts: async (args) => (await import('./verdicts.ts')).verdictsCommand(args),
}

/**
 * Runs one command as it was typed. Data goes to standard output, all else to standard error.
 *
 * @returns the exit code: 0 done, 1 bad input, 2 misuse
 */
export async function run([name, ...args]: readonly string[]): Promise<number> {
  try {
    if (name === undefined || name === 'help' || name === '--help') {
      process.stdout.write(`${usage}\n`)
      return 0
    }
    const command = commands[name]
    if (!command) throw new Misuse(`there is no command ${name}; ./border lists them`)
    const result = await command(args)
    if (typeof result === 'number') return result
    process.stdout.write(`${result}\n`)
    return 0
  } catch (error) {
    if (error instanceof BadInput) error.lines.forEach(say)
    else say(`border: ${error instanceof Error ? error.message : String(error)}`)
    return error instanceof Misuse ? 2 : 1
  }
}
