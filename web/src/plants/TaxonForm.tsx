import { taxonEndpoints, type KnownTaxon } from '@border/contract'
import {
  cautionKinds,
  cutBacks,
  divideHows,
  habits,
  lifeForms,
  moistureWords,
  moveSeasons,
  prunings,
  taxonSchema,
  troubles,
  wildlife,
  type Taxon,
} from '@border/core'
import { Checkbox, ColorPicker, Form, Input, Modal, Select } from 'antd'
import { usePracticeWrite } from '../api/writes.ts'
import { useBegunWith } from '../frame/useBegunWith.ts'
import { Button } from '../frame/Button.tsx'
import { QuantityInput } from '../units/QuantityInput.tsx'

type Field =
  | { trait: keyof Taxon; label: string; as: 'text' | 'yes' | 'colour' | 'tags' | 'month day' }
  | { trait: keyof Taxon; label: string; as: 'number'; unit?: string; step?: number }
  | { trait: keyof Taxon; label: string; as: 'one' | 'many'; of: readonly string[]; none?: string }
  | { trait: keyof Taxon; label: string; as: 'moisture' }
  | { trait: keyof Taxon; label: string; as: 'years' }

const one = (trait: keyof Taxon, label: string, of: readonly string[], none?: string): Field => ({
  trait,
  label,
  as: 'one',
  of,
  ...(none && { none }),
})
const number = (trait: keyof Taxon, label: string, unit: string, step = 0.05): Field => ({
  trait,
  label,
  as: 'number',
  unit,
  step,
})

const groups: { title: string; fields: Field[] }[] = [
  {
    title: 'What it is',
    fields: [
      { trait: 'botanical', label: 'Botanical name', as: 'text' },
      { trait: 'common', label: 'Common name', as: 'text' },
      { trait: 'synonyms', label: 'Other names', as: 'tags' },
      one('lifeForm', 'Form of life', lifeForms),
      one('habit', 'Habit', habits),
      one('annualSeason', 'Season of an annual', ['cool', 'warm'], 'not an annual'),
      one('sureness', 'How well it is known', ['well known', 'usual', 'rough']),
    ],
  },
  {
    title: 'Size and place',
    fields: [
      number('heightM', 'Height', 'm'),
      number('spreadM', 'Spread', 'm'),
      number('spacingM', 'Spacing', 'm'),
      number('yearsToSize', 'Years to size', 'years', 1),
      number('lightMinHours', 'Sun, least', 'h', 0.5),
      number('lightMaxHours', 'Sun, most', 'h', 0.5),
      one('hotAfternoon', 'Hot afternoons', ['suffers', 'bears', 'enjoys']),
      { trait: 'moistureMin', label: 'Driest', as: 'moisture' },
      { trait: 'moistureMax', label: 'Wettest', as: 'moisture' },
      number('phMin', 'pH from', '', 0.1),
      number('phMax', 'pH to', '', 0.1),
      number('hardyToC', 'Hardy to', '°C', 1),
      one('wind', 'Wind', ['bears', 'staked', 'sheltered']),
    ],
  },
  {
    title: 'Flower and leaf',
    fields: [
      { trait: 'bloomFrom', label: 'Bloom from', as: 'month day' },
      { trait: 'bloomTo', label: 'Bloom to', as: 'month day' },
      { trait: 'firstFlushTo', label: 'First flush to', as: 'month day' },
      one('bloomsBy', 'Bloom hangs on', ['warmth', 'day length', 'frost-free']),
      one('repeats', 'Flowers again', ['no', 'when cut back', 'when deadheaded', 'by itself']),
      { trait: 'flowerColour', label: 'Flower', as: 'colour' },
      { trait: 'foliageColour', label: 'Leaf', as: 'colour' },
      one('texture', 'Texture', ['fine', 'medium', 'bold']),
      { trait: 'scented', label: 'Scented', as: 'yes' },
      { trait: 'wildlife', label: 'Good for', as: 'many', of: wildlife },
    ],
  },
  {
    title: 'Care',
    fields: [
      one('moveWhen', 'Moved', moveSeasons),
      one('moveEase', 'Takes moving', ['easy', 'fair', 'poor']),
      { trait: 'divideYears', label: 'Divided every', as: 'years' },
      one('divideHow', 'Divided how', divideHows, 'not divided'),
      one('cutBack', 'Cut back', cutBacks),
      number('cutToM', 'Cut to', 'm'),
      { trait: 'standsWinter', label: 'Worth leaving for winter', as: 'yes' },
      { trait: 'halves', label: 'May be cut by half', as: 'yes' },
      one('pruning', 'Pruned', prunings, 'not pruned'),
      one('flowersOn', 'Flowers on', ['old wood', 'new wood', 'both'], 'does not matter'),
      { trait: 'bearsHardCut', label: 'Bears a hard cut', as: 'yes' },
      one('feed', 'Feed', ['none', 'light', 'heavy']),
      { trait: 'mulchAtCrown', label: 'Bears mulch at the crown', as: 'yes' },
      one('selfSeeds', 'Seeds itself', ['no', 'some', 'freely']),
      one('vigour', 'Vigour', ['slow', 'steady', 'strong', 'thug']),
      { trait: 'troubles', label: 'Usual troubles', as: 'many', of: troubles },
      { trait: 'cautions', label: 'Cautions', as: 'many', of: cautionKinds },
    ],
  },
]

interface Props {
  /** What is changed, or what a new taxon starts from. */
  from: KnownTaxon
  /** A new taxon under another name. */
  isCopy: boolean
  onClose: (botanical?: string) => void
}

/** Every trait of a taxon; a contradiction is shown at the trait it lies in. */
export function TaxonForm({ from, isCopy, onClose }: Props) {
  const [form] = Form.useForm<Taxon>()
  const seen = useBegunWith(from)
  const save = usePracticeWrite(taxonEndpoints.save, 'Kept in your library.', ({ was }) =>
    was === undefined ? undefined : seen,
  )
  const keep = (filled: Taxon) => {
    const { own: _own, ...shipped } = from
    const taxon = { ...shipped, ...filled }
    const read = taxonSchema.safeParse(taxon)
    if (!read.success) {
      form.setFields(read.error.issues.map((i) => ({ name: i.path[0] as keyof Taxon, errors: [i.message] })))
      form.scrollToField(read.error.issues[0]!.path[0] as keyof Taxon)
      return
    }
    const was = !isCopy && from.own !== null ? from.botanical : undefined
    save.mutate({ taxon, ...(was && { was }) }, { onSuccess: () => onClose(taxon.botanical) })
  }
  return (
    <Modal
      open
      width={860}
      title={isCopy ? 'A kind of your own' : `${from.botanical}, as your practice knows it`}
      onCancel={() => onClose()}
      footer={[
        <Button key="close" onClick={() => onClose()}>
          Cancel
        </Button>,
        <Button key="keep" look="primary" loading={save.isPending} onClick={() => form.submit()}>
          Keep it
        </Button>,
      ]}
    >
      <Form<Taxon>
        name="taxon"
        form={form}
        layout="vertical"
        requiredMark={false}
        className="taxon-form"
        initialValues={isCopy ? { ...from, botanical: '', synonyms: [] } : from}
        onFinish={keep}
      >
        {groups.map((g) => (
          <fieldset key={g.title}>
            <legend>{g.title}</legend>
            {g.fields.map((f) => (
              <FormField
                key={f.trait}
                field={f}
                fixed={f.trait === 'botanical' && !isCopy && from.own !== 'new'}
              />
            ))}
          </fieldset>
        ))}
      </Form>
    </Modal>
  )
}

function FormField({ field: f, fixed }: { field: Field; fixed: boolean }) {
  switch (f.as) {
    case 'text':
      return (
        <Form.Item
          name={f.trait}
          label={f.label}
          rules={[{ required: true, message: 'Give it' }]}
          className="wide"
        >
          <Input maxLength={160} disabled={fixed} />
        </Form.Item>
      )
    case 'number':
      return (
        <Form.Item name={f.trait} label={f.label} rules={[{ required: true, message: 'Give it' }]}>
          <QuantityInput step={f.step ?? 1} suffix={f.unit} />
        </Form.Item>
      )
    case 'yes':
      return (
        <Form.Item name={f.trait} valuePropName="checked" label=" ">
          <Checkbox>{f.label}</Checkbox>
        </Form.Item>
      )
    case 'colour':
      return (
        <Form.Item
          name={f.trait}
          label={f.label}
          getValueFromEvent={(c: { toHexString: () => string }) => c.toHexString()}
        >
          <ColorPicker showText disabledAlpha />
        </Form.Item>
      )
    case 'tags':
      return (
        <Form.Item name={f.trait} label={f.label} className="wide">
          <Select mode="tags" open={false} suffixIcon={null} />
        </Form.Item>
      )
    case 'month day':
      return (
        <Form.Item name={f.trait} label={f.label} getValueFromEvent={monthDayOf}>
          <Input placeholder="06-15" maxLength={5} style={{ width: 90 }} />
        </Form.Item>
      )
    case 'moisture':
      return (
        <Form.Item name={f.trait} label={f.label}>
          <Select options={moistureWords.map((w, i) => ({ value: i + 1, label: w }))} />
        </Form.Item>
      )
    case 'years':
      return (
        <Form.Item
          name={f.trait}
          label={f.label}
          getValueProps={(v: readonly [number, number] | null) => ({ value: v ? v.join('-') : '' })}
          getValueFromEvent={yearsOf}
        >
          <Input placeholder="never" suffix="years" style={{ width: 110 }} />
        </Form.Item>
      )
    default:
      return (
        <Form.Item name={f.trait} label={f.label} className={f.as === 'many' ? 'wide' : ''}>
          <Select
            mode={f.as === 'many' ? 'multiple' : undefined}
            options={[
              ...(f.none ? [{ value: null as unknown as string, label: f.none }] : []),
              ...f.of.map((v) => ({ value: v, label: v })),
            ]}
          />
        </Form.Item>
      )
  }
}

type Typed = React.ChangeEvent<HTMLInputElement>

/** Empty is no bloom. */
const monthDayOf = (e: Typed): string | null => e.target.value.trim() || null

/** `3-5`, or `4` for both; empty is never. What is neither stays as it was typed, and is told of. */
function yearsOf(e: Typed): [number, number] | null | string[] {
  const text = e.target.value.trim()
  if (text === '') return null
  const [a, b] = text.split('-')
  const [least, most] = [Number(a), Number(b ?? a)]
  return text.endsWith('-') || !Number.isInteger(least) || !Number.isInteger(most)
    ? text.split('-')
    : [least, most]
}
