import { limits } from '@border/core'
import { webcrypto } from 'node:crypto'
import express, { type Request, type RequestHandler, type Response } from 'express'
import multer from 'multer'
import { Refusal } from './errors.ts'

const [QUOTE, COMMA, BACKSLASH] = [0x22, 0x2c, 0x5c]
const [LIST, LIST_ENDS, OBJECT, OBJECT_ENDS] = [0x5b, 0x5d, 0x7b, 0x7d]

interface Shape {
  /** Lists and objects within each other. */
  nesting: number
  /** How often one value stands beside another. */
  commas: number
}

/** The shape of a JSON text, UTF-8, as far as it is within the most; read to its end though it be no JSON. */
export function shapeOf(json: Buffer, most: Shape = { nesting: Infinity, commas: Infinity }): Shape {
  const shape = { nesting: 0, commas: 0 }
  let depth = 0
  for (let i = 0; i < json.length && shape.nesting <= most.nesting && shape.commas <= most.commas; i++)
    switch (json[i]) {
      case LIST:
      case OBJECT:
        shape.nesting = Math.max(shape.nesting, ++depth)
        break
      case LIST_ENDS:
      case OBJECT_ENDS:
        depth--
        break
      case COMMA:
        shape.commas++
        break
      case QUOTE:
        i = endOfText(json, i)
    }
  return shape
}

/** Where the quote is that ends the text that begins at another; the end of everything where there is none. */
function endOfText(json: Buffer, begins: number): number {
  let at = json.indexOf(QUOTE, begins + 1)
  while (at > 0 && isEscaped(json, at)) at = json.indexOf(QUOTE, at + 1)
  return at < 0 ? json.length : at
}

/** Whether an odd number of backslashes stands before it. */
function isEscaped(json: Buffer, at: number): boolean {
  let before = at
  while (json[before - 1] === BACKSLASH) before--
  return (at - before) % 2 === 1
}

/** @throws {Refusal} for a JSON text that is fuller or deeper than is taken */
function requireShape(json: Buffer): void {
  const { nesting, commas } = shapeOf(json, { nesting: limits.nesting, commas: limits.values })
  if (commas > limits.values)
    throw new Refusal(
      413,
      `What was sent holds more than the ${limits.values} values taken at once. Nothing was saved.`,
    )
  if (nesting > limits.nesting)
    throw new Refusal(400, `What was sent is nested deeper than ${limits.nesting} levels. Nothing was saved.`)
}

/** The body of a request, JSON in UTF-8, no larger, no fuller and no deeper than is taken; nothing is read from one that is. */
export const readBody = (mostMb: number): RequestHandler =>
  express.json({
    limit: `${mostMb}mb`,
    verify: (_req, _res, body, encoding) => {
      if (encoding !== 'utf-8') throw new Refusal(415, 'Send JSON in UTF-8.')
      requireShape(body)
    },
  })

/** A file that was sent, and what it is known by: SHA-256, in hexadecimal. */
export interface SentFile {
  bytes: Buffer
  digest: string
}

const FILE_MB = 10
const SAID_BYTES = 20_000
const readForm = multer({
  limits: { fileSize: FILE_MB * 1024 * 1024, files: 1, fields: 1, parts: 2, fieldSize: SAID_BYTES },
}).single('file')

/** What the wire says of a form that cannot be read. */
const unreadForm: Readonly<Record<string, Refusal>> = {
  LIMIT_FILE_SIZE: new Refusal(
    413,
    `This file is larger than the ${FILE_MB} MB taken at once. Nothing was saved.`,
  ),
  LIMIT_FIELD_VALUE: new Refusal(413, 'What is said of the file is too long. Nothing was saved.'),
}

/**
 * A form of a body and a file, which is read as it comes in. The body is put in the request's.
 *
 * @throws {Refusal} where it is no such form, or larger than is taken
 */
export async function readSent(req: Request, res: Response): Promise<SentFile> {
  if (!req.is('multipart/form-data'))
    throw new Refusal(415, 'Send a form of two parts: “said”, in JSON, and “file”.')
  await new Promise<void>((resolve, reject) => {
    void readForm(req, res, (error: unknown) => {
      const { code = '' } = (error ?? {}) as { code?: string }
      if (!error) resolve()
      else
        reject(
          unreadForm[code] ?? new Refusal(400, 'The form cannot be read as it was sent. Nothing was saved.'),
        )
    })
  })
  const { said } = (req.body ?? {}) as { said?: unknown }
  if (typeof said !== 'string' || !req.file)
    throw new Refusal(400, 'The form needs two parts: “said”, in JSON, and “file”. Nothing was saved.')
  requireShape(Buffer.from(said))
  try {
    req.body = JSON.parse(said)
  } catch {
    throw new Refusal(400, unread['entity.parse.failed']!)
  }
  return sentFile(req.file.buffer)
}

/** A file, told by what it holds off the event loop. */
export const sentFile = async (bytes: Buffer): Promise<SentFile> => ({
  bytes,
  digest: Buffer.from(await webcrypto.subtle.digest('SHA-256', bytes)).toString('hex'),
})

/** What the wire says of a request that cannot be read, by the kind of error that reading it ended with. */
const unread: Readonly<Record<string, string>> = {
  'entity.parse.failed': 'The request is not valid JSON.',
  'encoding.unsupported': 'The request is packed in a way that is not known here: gzip, deflate and br are.',
  'charset.unsupported': 'Send JSON in UTF-8.',
  'request.size.invalid': 'The request is not as long as it says.',
  'request.aborted': 'The request ended before it was complete.',
}

/** An error of reading a request as a refusal; undefined for anything else. */
export function requestRefusal(error: unknown, mostMb: number): Refusal | undefined {
  const { status, type = '' } = error as { status?: number; type?: string }
  if (type === 'entity.too.large')
    return new Refusal(413, `This is larger than the ${mostMb} MB taken at once. Nothing was saved.`)
  if (status === undefined || status < 400 || status > 499) return undefined
  return new Refusal(status, unread[type] ?? 'The request cannot be read as it was sent. Nothing was saved.')
}
