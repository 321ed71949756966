import { gardenEndpoints, type TownView } from '@border/contract'
import { keepPreviousData } from '@tanstack/react-query'
import { Select } from 'antd'
import { useDeferredValue, useState } from 'react'
import { useAnswer } from '../api/answers.ts'
import { errorText } from '../api/writes.ts'

/** With fewer letters nearly every town is one of them. */
const LEAST_LETTERS = 2

const countries = new Intl.DisplayNames(['en'], { type: 'region' })

const wordsOf = (t: TownView) =>
  [t.name, t.region, countries.of(t.country) ?? t.country].filter((word) => word !== null).join(', ')

interface Props {
  id?: string
  onFind: (town: TownView) => void
}

/** Finds a town by the beginning of its name, to begin a garden at. */
export function FindTown({ id, onFind }: Props) {
  const [typed, setTyped] = useState('')
  const name = useDeferredValue(typed.trim())
  const isAsked = name.length >= LEAST_LETTERS
  const { data, error, isFetching } = useAnswer(
    gardenEndpoints.findTowns,
    { query: { name } },
    { enabled: isAsked, placeholderData: keepPreviousData },
  )
  const towns = (isAsked && data) || []
  return (
    <Select<number, { value: number; label: string }>
      id={id}
      showSearch={{ filterOption: false, onSearch: setTyped }}
      placeholder="Its name, or 42.27 N 71.8 W"
      value={null}
      loading={isFetching}
      options={towns.map((town, value) => ({ value, label: wordsOf(town) }))}
      notFoundContent={
        error ? errorText(error) : isAsked && !isFetching ? `No town begins with “${name}”.` : null
      }
      onChange={(at) => onFind(towns[at]!)}
    />
  )
}
