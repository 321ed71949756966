import { UNKNOWN } from '@border/core'
import { Button } from '../frame/Button.tsx'
import { NoSuchPlant, useNewKind } from './NewKind.tsx'
import { TaxonPicker, type TaxonPickerProps } from './TaxonPicker.tsx'

/** A kind of plant; one of one's own is made where there is none. */
export function TaxonSelect(props: Omit<TaxonPickerProps, 'notFound'>) {
  const { onChange, orUnknown } = props
  const kind = useNewKind((botanical) => onChange?.(botanical))
  return (
    <>
      <TaxonPicker
        {...props}
        notFound={(typed) => (
          <div className="stack">
            No such plant.
            <NoSuchPlant named={typed} onMake={kind.make} />
            {orUnknown && (
              <Button size="small" onClick={() => onChange?.(UNKNOWN.botanical)}>
                Nobody knows; to be named later
              </Button>
            )}
          </div>
        )}
      />
      {kind.dialog}
    </>
  )
}
