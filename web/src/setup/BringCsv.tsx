import { useRef } from 'react'
import { Button } from '../frame/Button.tsx'
import { FileInput } from '../frame/FileInput.tsx'

/** A button that reads a CSV file of the person's choice. */
export function BringCsv({
  loading,
  onText,
  children,
}: {
  loading: boolean
  onText: (text: string) => void
  children: string
}) {
  const input = useRef<HTMLInputElement>(null)
  return (
    <>
      <FileInput
        ref={input}
        accept=".csv,text/csv"
        hidden
        onFiles={([file]) => void file!.text().then(onText)}
      />
      <Button loading={loading} onClick={() => input.current?.click()}>
        {children}
      </Button>
    </>
  )
}
