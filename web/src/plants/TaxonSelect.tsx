import { taxonSearch } from '@border/core'
import { Select } from 'antd'
import { useMemo, useState } from 'react'
import { useTaxa } from './queries.ts'

interface Props {
  id?: string
  label?: string
  value?: string | undefined
  onChange?: (botanical: string) => void
  style?: React.CSSProperties
  size?: 'small'
}

/** Taxa that are offered at once: nobody reads more. */
const OFFERED = 30

/** A kind of plant, found by any name that people use, with a letter wrong here and there. */
export function TaxonSelect({ id, label, value, onChange, style, size }: Props) {
  const { data: taxa } = useTaxa()
  const [typed, setTyped] = useState('')
  const search = useMemo(() => taxa && taxonSearch(taxa), [taxa])
  const offered = useMemo(
    () => (typed.trim() && search ? search.find(typed) : (taxa ?? [])).slice(0, typed ? OFFERED : undefined),
    [typed, search, taxa],
  )
  return (
    <Select
      id={id}
      aria-label={label}
      size={size}
      style={style}
      value={value}
      onChange={(v: string) => onChange?.(v)}
      showSearch={{ filterOption: false, onSearch: setTyped }}
      notFoundContent="No such plant. Make it a kind of your own under Plants, Library."
      options={offered.map((t) => ({ value: t.botanical, label: `${t.botanical}, ${t.common}` }))}
    />
  )
}
