import {
  heightByAngle,
  heightByPicture,
  heightByShadow,
  sizedWords,
  type Sized,
  type SizedOr,
} from '@border/core'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Segments } from '../frame/Segments.tsx'
import { instantThere, TimeOfShadow } from './TimeOfShadow.tsx'
import '../draw/draw.css'
import { QuantityInput } from '../units/QuantityInput.tsx'

const ways = ['its shadow', 'an angle', 'a photo'] as const
type Way = (typeof ways)[number]

/** The height of a tree or wall measured from the ground, with how far it may be out. */
export function MeasureHeight({ onTake }: { onTake: (height: Sized) => void }) {
  const [way, setWay] = useState<Way>('its shadow')
  return (
    <section aria-label="Measure its height" className="draw-corners">
      <Segments label="Measured by" value={way} options={ways} onChange={setWay} />
      {way === 'its shadow' ? (
        <ByShadow onTake={onTake} />
      ) : way === 'an angle' ? (
        <ByAngle onTake={onTake} />
      ) : (
        <ByPicture onTake={onTake} />
      )}
    </section>
  )
}

interface WayProps {
  onTake: (height: Sized) => void
}

function ByShadow({ onTake }: WayProps) {
  const { view } = useGardenContext()
  const { latitude, longitude, timeZone } = view.garden
  const [lengthM, setLength] = useState<number | null>(null)
  const [slopeDeg, setSlope] = useState<number | null>(0)
  const [time, setTime] = useState('')
  const now = instantThere(time, timeZone)
  return (
    <>
      <div className="draw-sizes">
        <Size label="From below its top to the shadow’s end" value={lengthM} unit="m" onValue={setLength} />
        <Size label="Ground falls away by" value={slopeDeg} unit="°" onValue={setSlope} />
      </div>
      <TimeOfShadow value={time} onChange={setTime} />
      <Result
        of={
          lengthM && now !== undefined
            ? heightByShadow({ latitude, longitude }, { lengthM, slopeDeg: slopeDeg ?? 0, now })
            : undefined
        }
        onTake={onTake}
      />
    </>
  )
}

function ByAngle({ onTake }: WayProps) {
  const [distanceM, setDistance] = useState<number | null>(null)
  const [topDeg, setTop] = useState<number | null>(null)
  const [eyeM, setEye] = useState<number | null>(1.6)
  const [footDeg, setFoot] = useState<number | null>(null)
  return (
    <>
      <div className="draw-sizes">
        <Size label="Distance to it" value={distanceM} unit="m" onValue={setDistance} />
        <Size label="Angle up to its top" value={topDeg} unit="°" onValue={setTop} />
        <Size label="Your eye above ground" value={eyeM} unit="m" onValue={setEye} />
        <Size label="Angle down to its foot, if not level" value={footDeg} unit="°" onValue={setFoot} />
      </div>
      <Result
        of={
          distanceM && topDeg
            ? heightByAngle({ distanceM, topDeg, eyeM: eyeM ?? 1.6, footDeg: footDeg ?? undefined })
            : undefined
        }
        onTake={onTake}
      />
    </>
  )
}

/** A photo to click on: the foot and the top of what is known, then of what is measured. It is looked at here, and kept nowhere. */
function ByPicture({ onTake }: WayProps) {
  const [url, setUrl] = useState<string>()
  const [knownM, setKnown] = useState<number | null>(2)
  const [marks, setMarks] = useState<readonly number[]>([])
  const asks = [
    'Click the foot of what is known.',
    'Click its top.',
    'Click the foot of what is measured.',
    'Click its top.',
  ]
  const [k0, k1, w0, w1] = marks
  return (
    <>
      <div className="draw-sizes">
        <Size label="Height that is known, beside it" value={knownM} unit="m" onValue={setKnown} />
        <div className="draw-field">
          <label>
            A photo from afar
            <input
              type="file"
              accept="image/*"
              onChange={(e) => {
                const [file] = e.target.files ?? []
                setMarks([])
                setUrl(file && URL.createObjectURL(file))
              }}
            />
          </label>
        </div>
      </div>
      {url && (
        <>
          <small>{asks[marks.length] ?? 'Click again to begin anew.'}</small>
          <button
            type="button"
            className="photo-marks"
            aria-label={asks[marks.length] ?? 'Begin anew'}
            onClick={(e) => {
              const y = e.clientY - e.currentTarget.getBoundingClientRect().top
              setMarks(marks.length < 4 ? [...marks, y] : [y])
            }}
          >
            <img src={url} alt="" />
            {marks.map((y, i) => (
              <i key={i} style={{ top: y }} />
            ))}
          </button>
        </>
      )}
      <Result
        of={
          knownM && k0 !== undefined && k1 !== undefined && w0 !== undefined && w1 !== undefined
            ? heightByPicture({ heightM: knownM, px: Math.abs(k1 - k0) }, Math.abs(w1 - w0))
            : undefined
        }
        onTake={onTake}
      />
    </>
  )
}

const Size = ({
  label,
  value,
  unit,
  onValue,
}: {
  label: string
  value: number | null
  unit: string
  onValue: (v: number | null) => void
}) => (
  <div className="draw-field">
    <label>
      {label}
      <QuantityInput value={value} step={0.1} suffix={unit} onChange={onValue} />
    </label>
  </div>
)

function Result({ of, onTake }: { of: SizedOr | undefined; onTake: (height: Sized) => void }) {
  if (!of) return null
  if (!of.ok) return <small role="alert">{of.says}</small>
  const { sized } = of
  return (
    <div className="row">
      <b>{sizedWords(sized)}</b>
      <Button size="small" onClick={() => onTake(sized)}>
        Take it
      </Button>
    </div>
  )
}
