import { taxonEndpoints, type KnownTaxon } from '@border/contract'
import { capitalised, taxonSchema } from '@border/core'
import { Input, Modal } from 'antd'
import { useState } from 'react'
import { useSignedIn } from '../api/session.ts'
import { usePracticeWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useTaxa } from './queries.ts'
import { TaxonPicker } from './TaxonPicker.tsx'
import '../draw/draw.css'

interface Props {
  /** As somebody typed it where it was not found. */
  named: string
  onMade: (botanical: string) => void
  onClose: () => void
}

/** A kind of one's own made on the spot: its name, and a kind that it is much like, whose traits it has until more is said. */
function NewKind({ named, onMade, onClose }: Props) {
  const { data: taxa } = useTaxa()
  const [botanical, setBotanical] = useState(() => capitalised(named.trim()))
  const [common, setCommon] = useState(() => named.trim())
  const [like, setLike] = useState<string>()
  const [wrong, setWrong] = useState<string>()
  const save = usePracticeWrite(taxonEndpoints.save, 'Kept in your library.', () => undefined)
  const pattern = taxa?.find((t) => t.botanical === like)
  const keep = () => {
    const { own: _, ...traits } = pattern as KnownTaxon
    const read = taxonSchema.safeParse({
      ...traits,
      botanical: botanical.trim(),
      common: common.trim(),
      synonyms: [],
      sureness: 'rough',
    })
    if (taxa?.some((t) => t.botanical.toLowerCase() === botanical.trim().toLowerCase()))
      return setWrong(`${botanical.trim()} is in your library already`)
    if (!read.success) return setWrong(read.error.issues.map((i) => i.message).join('. '))
    // Once it is found, what asked for it may be gone: what comes after must not wait for that.
    save.mutateAsync({ taxon: read.data }).then(
      () => onMade(read.data.botanical),
      () => undefined,
    )
  }
  return (
    <Modal
      open
      title="A kind of your own"
      okText="Keep it"
      onCancel={onClose}
      onOk={keep}
      okButtonProps={{ disabled: !pattern || !botanical.trim() || !common.trim() }}
      confirmLoading={save.isPending}
    >
      <div className="stack">
        <label className="draw-field">
          <span>Botanical name, or what you call it</span>
          <Input value={botanical} maxLength={160} onChange={(e) => setBotanical(e.target.value)} />
        </label>
        <label className="draw-field">
          <span>Common name</span>
          <Input value={common} maxLength={160} onChange={(e) => setCommon(e.target.value)} />
        </label>
        <div className="draw-field">
          <span>Much like</span>
          <TaxonPicker label="Much like" value={like} onChange={setLike} />
        </div>
        {pattern && (
          <p className="soft">
            Until you say otherwise in the library it is taken to want what {pattern.botanical} wants, and
            what is said of it is said to be rough.
          </p>
        )}
        {wrong && <p role="alert">{wrong}.</p>}
      </div>
    </Modal>
  )
}

/** What is done where nothing is called so: whoever leads the practice makes it a kind. */
export function NoSuchPlant({ named, onMake }: { named: string; onMake: (named: string) => void }) {
  const { person } = useSignedIn()
  if (!person.leads) return <>Whoever leads your practice can make it a kind of your own.</>
  return (
    <Button size="small" onClick={() => onMake(named)}>
      Make “{named.trim()}” a kind of your own
    </Button>
  )
}

/** Makes a kind on the spot: begun with what somebody typed, and told of once it is made. */
export function useNewKind(onMade: (botanical: string) => void) {
  const [named, make] = useState<string>()
  const close = () => make(undefined)
  return {
    make,
    dialog: named !== undefined && (
      <NewKind
        named={named}
        onClose={close}
        onMade={(botanical) => {
          close()
          onMade(botanical)
        }}
      />
    ),
  }
}
