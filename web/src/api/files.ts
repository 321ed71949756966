import type { Endpoint } from '@border/contract'
import { useMutation } from '@tanstack/react-query'
import { announce } from '../frame/Announced.tsx'
import { askFile, type Sent } from './client.ts'
import { errorText } from './writes.ts'

/** Long enough for a browser to take the file over, milliseconds. */
const TAKEN_MS = 10_000

/** Hands a file to the browser to be kept. */
export function saveFile(file: Blob, name: string): void {
  const address = URL.createObjectURL(file)
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(address), TAKEN_MS)
}

/** A file that the server takes a while to make: fetched, and kept; a refusal is shown in its words. */
export const useFile = <E extends Endpoint>(endpoint: E) =>
  useMutation({
    mutationFn: (sent: Sent<E>) => askFile(endpoint, sent),
    onSuccess: ({ file, name }) => saveFile(file, name),
    onError: (error) => announce.failed(errorText(error)),
  })
