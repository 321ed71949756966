import setup from './vitestSetup.ts'

await setup()
const { writeAnswers } = await import('../../server/src/test/writeAnswers.ts')
process.stdout.write(`${await writeAnswers()}\n`)
process.exit(0)
