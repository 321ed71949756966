import { ButtonLink } from '../frame/Button.tsx'

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
    <ButtonLink
      size="small"
      href="#"
      onClick={(e) => {
        e.preventDefault()
        const address = URL.createObjectURL(new Blob(['\uFEFF', text()], { type: 'text/csv;charset=utf-8' }))
        const link = document.createElement('a')
        link.href = address
        link.download = name
        link.click()
        setTimeout(() => URL.revokeObjectURL(address), 1000)
      }}
    >
      {children}
    </ButtonLink>
  )
}
