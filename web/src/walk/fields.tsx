import { FileInput } from '../frame/FileInput.tsx'
import { Input } from 'antd'

/** A word that is on or off, large enough for a thumb. */
export function Chip({
  on,
  label,
  onClick,
  children,
}: {
  on?: boolean
  /** Said instead of what is shown. */
  label?: string
  onClick: () => void
  children: React.ReactNode
}) {
  return (
    <button type="button" className="walk-chip" aria-pressed={on} aria-label={label} onClick={onClick}>
      {children}
    </button>
  )
}

/** A line or two of words; nothing written is nothing said. */
export function WordsField({
  label,
  value,
  most,
  rows,
  onChange,
}: {
  label: string
  value: string | undefined
  most: number
  /** Lines of room; one without it. */
  rows?: number
  onChange: (words: string | undefined) => void
}) {
  const field = {
    maxLength: most,
    value: value ?? '',
    onChange: (e: { target: { value: string } }) =>
      onChange(e.target.value === '' ? undefined : e.target.value),
  }
  return (
    <label className="walk-note">
      <span>{label}</span>
      {rows ? <Input.TextArea rows={rows} {...field} /> : <Input {...field} />}
    </label>
  )
}

/** Opens the camera on a phone, a file elsewhere. */
export function PhotoButton({ label, onFile }: { label: string; onFile: (file: File) => void }) {
  return (
    <label className="walk-photo">
      <FileInput accept="image/*" capture="environment" onFiles={([file]) => onFile(file!)} />
      {label}
    </label>
  )
}
