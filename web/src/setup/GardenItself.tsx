import { gardenEndpoints, type GardenSummary } from '@border/contract'
import { isTimeZone } from '@border/core'
import { useQueryClient } from '@tanstack/react-query'
import { Form, Input, Modal } from 'antd'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { PRACTICE } from '../api/answers.ts'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { NorthByShadow } from '../survey/NorthByShadow.tsx'
import { LAST_GARDEN } from '../frame/lastGarden.ts'
import { QuantityInput } from '../units/QuantityInput.tsx'

type Head = Pick<GardenSummary, 'name' | 'latitude' | 'longitude' | 'timeZone' | 'northDeg'>

/** What is said of the garden itself, to be put right; and the way to take it out. */
export function GardenItself() {
  const { view, isHead } = useGardenContext()
  const { name, latitude, longitude, timeZone, northDeg } = view.garden
  const amend = useGardenWrite(
    gardenEndpoints.amend,
    { gardenId: view.garden.id },
    'Put right; the light and the dates follow.',
    () => ({ name, latitude, longitude, timeZone, northDeg }),
  )
  const [form] = Form.useForm<Head>()
  return (
    <section aria-labelledby="garden-itself">
      <h2 id="garden-itself">The garden</h2>
      <p className="soft">
        Where it lies tells the sun; north is where true north lies on the plan, degrees clockwise from
        straight up. Put right what is wrong: everything is worked out anew.
      </p>
      <Form<Head>
        name="itself"
        form={form}
        key={JSON.stringify([name, latitude, longitude, timeZone, northDeg])}
        layout="vertical"
        requiredMark={false}
        disabled={!isHead}
        className="garden-form"
        initialValues={{ name, latitude, longitude, timeZone, northDeg }}
        onFinish={(head) => amend.mutate(head)}
      >
        <Form.Item name="name" label="Name" rules={[{ required: true, message: 'Name the garden' }]}>
          <Input maxLength={120} />
        </Form.Item>
        <Form.Item
          name="timeZone"
          label="Time zone"
          rules={[
            { required: true, message: 'Like Europe/London' },
            {
              validator: (_, zone: string) =>
                isTimeZone(zone)
                  ? Promise.resolve()
                  : Promise.reject(new Error('No such zone; like Europe/London')),
            },
          ]}
        >
          <Input />
        </Form.Item>
        <Form.Item
          name="latitude"
          label="Latitude, north positive"
          rules={[{ required: true, message: 'Needed' }]}
        >
          <QuantityInput min={-90} max={90} step={0.01} suffix="°" />
        </Form.Item>
        <Form.Item
          name="longitude"
          label="Longitude, east positive"
          rules={[{ required: true, message: 'Needed' }]}
        >
          <QuantityInput min={-180} max={180} step={0.01} suffix="°" />
        </Form.Item>
        <Form.Item name="northDeg" label="North on the plan" rules={[{ required: true, message: 'Needed' }]}>
          <QuantityInput min={-360} max={360} step={1} suffix="°" />
        </Form.Item>
        {isHead && <NorthByShadow onTake={(deg) => form.setFieldValue('northDeg', deg)} />}
        {isHead && (
          <div className="row">
            <Button type="submit" loading={amend.isPending}>
              Put it right
            </Button>
            <TakeOut />
          </div>
        )}
      </Form>
    </section>
  )
}

/** Takes the garden out of the practice, once its name was typed. */
function TakeOut() {
  const { view } = useGardenContext()
  const [isOpen, setOpen] = useState(false)
  const [typed, setTyped] = useState('')
  const client = useQueryClient()
  const navigate = useNavigate()
  const takeOut = useGardenWrite(
    gardenEndpoints.withdraw,
    { gardenId: view.garden.id },
    `${view.garden.name} is taken out. “Add a garden” brings it back.`,
  )
  // The garden is gone with it, and this form with the garden: what comes after must not wait for either.
  const go = () =>
    takeOut.mutateAsync({ name: typed }).then(
      async () => {
        localStorage.removeItem(LAST_GARDEN)
        await client.invalidateQueries({ queryKey: PRACTICE })
        await navigate('/')
      },
      () => undefined,
    )
  return (
    <>
      <Button danger look="text" onClick={() => setOpen(true)}>
        Take this garden out
      </Button>
      <Modal
        open={isOpen}
        title={`Take ${view.garden.name} out of the practice?`}
        okText="Take it out"
        okButtonProps={{
          danger: true,
          disabled: typed.trim() !== view.garden.name,
          loading: takeOut.isPending,
        }}
        cancelText="Cancel"
        onOk={() => void go()}
        onCancel={() => setOpen(false)}
      >
        <p>
          Nobody sees it any more and its work is no longer planned. Everything in it is kept, and whoever
          leads the practice can bring it back under “Add a garden”.
        </p>
        <label className="stack">
          Type its name, {view.garden.name}, to go on:
          <Input value={typed} onChange={(e) => setTyped(e.target.value)} />
        </label>
      </Modal>
    </>
  )
}
