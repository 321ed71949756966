import { Button } from 'antd'
import { useRef } from 'react'

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
      <input
        ref={input}
        type="file"
        accept=".csv,text/csv"
        hidden
        onChange={async (e) => {
          const file = e.target.files?.[0]
          e.target.value = ''
          if (file) onText(await file.text())
        }}
      />
      <Button loading={loading} onClick={() => input.current?.click()}>
        {children}
      </Button>
    </>
  )
}
