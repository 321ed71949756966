import { waitFor } from '@testing-library/react'
import { expect, vi } from 'vitest'

/** The files that a browser is given to keep while something is done. */
export async function saved(begin: () => Promise<void>): Promise<{ name: string; file: Blob }[]> {
  const files: { name: string; file: Blob }[] = []
  const made = vi.spyOn(URL, 'createObjectURL').mockImplementation((file) => {
    files.push({ name: '', file: file as Blob })
    return 'blob:made'
  })
  const clicked = vi.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (
    this: HTMLAnchorElement,
  ) {
    files.at(-1)!.name = this.download
  })
  await begin()
  await waitFor(() => expect(files.at(-1)?.name).toBeTruthy())
  made.mockRestore()
  clicked.mockRestore()
  return files
}
