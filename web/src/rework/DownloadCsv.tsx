import { saveFile } from '../api/files.ts'
import { Button } from '../frame/Button.tsx'

/** A table made here, to be taken along: with the mark by which spreadsheets know how it is written. */
export function DownloadCsv({
  name,
  text,
  children,
}: {
  name: string
  text: () => string
  children: React.ReactNode
}) {
  return (
    <Button
      size="small"
      onClick={() => saveFile(new Blob(['\uFEFF', text()], { type: 'text/csv;charset=utf-8' }), name)}
    >
      {children}
    </Button>
  )
}
