import { taxonSearch, UNKNOWN } from '@border/core'
import { Select } from 'antd'
import { useMemo, useState } from 'react'
import { useTaxa } from './queries.ts'

export interface TaxonPickerProps {
  id?: string | undefined
  label?: string | undefined
  placeholder?: string | undefined
  value?: string | undefined
  onChange?: ((botanical: string) => void) | undefined
  style?: React.CSSProperties | undefined
  size?: 'small' | undefined
  /** That nobody knows what it is can be said too. */
  orUnknown?: boolean | undefined
  /** Shown where nothing is called what was typed. */
  notFound?: ((typed: string) => React.ReactNode) | undefined
}

/** Taxa that are offered at once: nobody reads more. */
const OFFERED = 30

/** A kind of plant that there is, found by any name that people use, with a letter wrong here and there. */
export function TaxonPicker({ label, orUnknown, onChange, notFound, ...rest }: TaxonPickerProps) {
  const { data: taxa } = useTaxa()
  const [typed, setTyped] = useState('')
  const search = useMemo(() => taxa && taxonSearch(taxa), [taxa])
  const offered = useMemo(
    () => (typed.trim() && search ? search.find(typed) : (taxa ?? [])).slice(0, typed ? OFFERED : undefined),
    [typed, search, taxa],
  )
  return (
    <Select
      {...rest}
      aria-label={label}
      onChange={(v: string) => onChange?.(v)}
      showSearch={{ filterOption: false, onSearch: setTyped }}
      notFoundContent={notFound?.(typed) ?? 'No such plant.'}
      options={[
        ...offered.map((t) => ({ value: t.botanical, label: `${t.botanical}, ${t.common}` })),
        ...(orUnknown && offered.length > 0
          ? [{ value: UNKNOWN.botanical, label: 'Nobody knows; to be named later' }]
          : []),
      ]}
    />
  )
}
