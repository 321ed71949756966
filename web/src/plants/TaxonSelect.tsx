import { UNKNOWN } from '@border/core'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { NewKind, NoSuchPlant } from './NewKind.tsx'
import { TaxonPicker, type TaxonPickerProps } from './TaxonPicker.tsx'

/** A kind of plant; one of one's own is made where there is none. */
export function TaxonSelect(props: Omit<TaxonPickerProps, 'notFound'>) {
  const { onChange, orUnknown } = props
  const [making, setMaking] = useState<string>()
  return (
    <>
      <TaxonPicker
        {...props}
        notFound={(typed) => (
          <div className="stack">
            No such plant.
            <NoSuchPlant named={typed} onMake={setMaking} />
            {orUnknown && (
              <Button size="small" onClick={() => onChange?.(UNKNOWN.botanical)}>
                Nobody knows; to be named later
              </Button>
            )}
          </div>
        )}
      />
      {making !== undefined && (
        <NewKind
          named={making}
          onClose={() => setMaking(undefined)}
          onMade={(botanical) => {
            setMaking(undefined)
            onChange?.(botanical)
          }}
        />
      )}
    </>
  )
}
