import { Alert, Input } from 'antd'
import { useEffect, useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { FileInput } from '../frame/FileInput.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import '../draw/draw.css'
import { isPdf, NotBroughtIn, openPdf, readyToSend, type Pages } from './bringIn.ts'
import { useAddPicture } from './queries.ts'
import { QuantityInput } from '../units/QuantityInput.tsx'

const nameOf = (file: File) => file.name.replace(/\.[^.]*$/, '').slice(0, 120) || 'Picture'

/** A scan, photo or page of a PDF, brought in. */
export function BringIn({ onIn }: { onIn: (pictureId: string) => void }) {
  const { view } = useGardenContext()
  const add = useAddPicture(view.garden.id)
  const [says, setSays] = useState<string>()
  const [pdf, setPdf] = useState<{ name: string; pages: Pages }>()
  useEffect(() => () => pdf?.pages.close(), [pdf])
  const [isReading, setReading] = useState(false)
  const attempt = async (work: () => Promise<void>) => {
    setSays(undefined)
    setReading(true)
    try {
      await work()
    } catch (error) {
      setSays(
        error instanceof NotBroughtIn
          ? `${error.message} Nothing was brought in.`
          : 'This file cannot be read here. Nothing was brought in.',
      )
    } finally {
      setReading(false)
    }
  }
  const send = (name: string, file: Blob) =>
    add.mutate({ name, file }, { onSuccess: (pictureId) => onIn(pictureId) })
  const choose = (file: File) =>
    attempt(async () => {
      if (!isPdf(file)) return send(nameOf(file), await readyToSend(file))
      const pages = await openPdf(file)
      if (pages.count > 1) return setPdf({ name: nameOf(file), pages })
      const page = await pages.page(1)
      pages.close()
      send(nameOf(file), page)
    })
  return (
    <section aria-label="Bring a picture in" className="draw-corners">
      <label className="draw-field">
        <span>A picture, or a PDF</span>
        <FileInput accept="image/*,application/pdf" onFiles={([file]) => file && void choose(file)} />
      </label>
      {pdf && (
        <WhichPage
          count={pdf.pages.count}
          name={pdf.name}
          onPage={(n, name) =>
            void attempt(async () => {
              const page = await pdf.pages.page(n)
              setPdf(undefined)
              send(name, page)
            })
          }
        />
      )}
      {(isReading || add.isPending) && <p role="status">Reading it …</p>}
      {says && <Alert type="error" title={says} />}
    </section>
  )
}

interface WhichPageProps {
  count: number
  name: string
  onPage: (n: number, name: string) => void
}

function WhichPage({ count, name, onPage }: WhichPageProps) {
  const [n, setN] = useState(1)
  const [called, setCalled] = useState(name)
  return (
    <div className="row">
      <label>
        Page <QuantityInput min={1} max={count} precision={0} value={n} onChange={(v) => setN(v ?? 1)} /> of{' '}
        {count}
      </label>
      <label>
        called <Input value={called} maxLength={120} onChange={(e) => setCalled(e.target.value)} />
      </label>
      <Button look="primary" disabled={called.trim() === ''} onClick={() => onPage(n, called.trim())}>
        Take this page
      </Button>
    </div>
  )
}
