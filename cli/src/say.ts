/** Messages go to standard error; standard output is for data. */
export const say = (text: string): void => void process.stderr.write(`${text}\n`)

/** Bad input: exit code 1 with each line on standard error. */
export class BadInput extends Error {
  constructor(readonly lines: readonly string[]) {
    super(lines.join('\n'))
  }
}

/** The command was not used as it is meant: exit code 2. */
export class Misuse extends Error {}
