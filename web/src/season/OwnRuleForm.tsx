import { ruleEndpoints, type OwnAnchor, type OwnRuleRequest } from '@border/contract'
import {
  capitalised,
  forbiddenStates,
  forbiddenWords,
  lifeForms,
  operations,
  ownAnchors,
  skills,
  type ForbiddenState,
  type LifeForm,
  type Operation,
  type Skill,
} from '@border/core'
import { Checkbox, Form, Input, Radio, Select } from 'antd'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useTaxa } from '../plants/queries.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useBegunWith } from '../frame/useBegunWith.ts'
import { MonthDaysChoice, USUAL_MONTH_DAYS } from './MonthDaysChoice.tsx'
import { QuantityInput } from '../units/QuantityInput.tsx'

type AnchorAt = OwnAnchor['at']

const anchorWords: Record<AnchorAt, string> = {
  'last frost': 'usual last frost',
  'first frost': 'usual first frost',
  'soil above': 'soil rises above',
  'soil below': 'soil falls below',
  'nights above': 'nights rise above',
  'nights below': 'nights fall below',
  'bloom starts': 'its bloom starts',
  'first flush ends': 'its first flush ends',
  'bloom ends': 'its bloom ends',
  'growth shows': 'its growth shows',
  'goes over': 'it goes over',
  'is gone': 'it has died down',
  midwinter: 'coldest soil',
  midsummer: 'warmest soil',
  'next midwinter': 'coldest soil of the next winter',
  earliest: 'its opening',
  latest: 'its closing',
}
const needsC = (at: AnchorAt | undefined) => /above|below/.test(at ?? '')

type Materials = OwnRuleRequest['materials']

interface Filled {
  operation: Operation
  does: string
  what: 'places' | 'plants'
  place: 'bed' | 'container' | 'any'
  taxa: string[]
  lifeForms: LifeForm[]
  opens: OwnAnchor
  bestFrom: OwnAnchor
  bestTo: OwnAnchor
  closes: OwnAnchor
  everyDays?: number | null
  monthDays?: { weekday: number; nths: number[] }
  isByWeekdays: boolean
  byTurns?: string[]
  everySeasons?: number | null
  setUp: number
  perPlant: number
  perM2: number
  materials?: Materials
  tools: string[]
  cautions: string[]
  forbids: ForbiddenState[]
  skill?: Skill | null
  why: string
  missed: string
}

const FRESH: Partial<Filled> = {
  operation: 'upkeep',
  what: 'plants',
  place: 'bed',
  taxa: [],
  lifeForms: [],
  opens: { at: 'last frost', days: 0 },
  bestFrom: { at: 'earliest', days: 0 },
  bestTo: { at: 'earliest', days: 21 },
  closes: { at: 'earliest', days: 42 },
  isByWeekdays: false,
  setUp: 5,
  perPlant: 2,
  perM2: 0,
  tools: [],
  cautions: [],
  forbids: [],
}

function filledOf(rule: OwnRuleRequest): Partial<Filled> {
  const { on, labour, ...rest } = rule
  return {
    ...rest,
    ...labour,
    isByWeekdays: rule.monthDays !== undefined,
    what: on.what,
    place: on.place ?? 'any',
    taxa: on.what === 'plants' ? on.taxa : [],
    lifeForms: on.what === 'plants' ? on.lifeForms : [],
  }
}

function requestOf(id: string | undefined, f: Filled): OwnRuleRequest {
  const {
    what,
    place,
    taxa,
    lifeForms: forms,
    setUp,
    perPlant,
    perM2,
    everyDays,
    everySeasons,
    ...others
  } = f
  const { isByWeekdays, monthDays, byTurns = [], ...rest } = others
  return {
    ...rest,
    ...(id && { id }),
    on:
      what === 'places'
        ? { what, place: place === 'container' ? 'container' : 'bed' }
        : { what, taxa, lifeForms: forms, ...(place !== 'any' && { place }) },
    labour: { setUp, perPlant: what === 'places' ? 0 : perPlant, perM2 },
    materials: (f.materials ?? []).map((m) => ({
      name: m.name,
      unit: m.unit,
      ...(m.perPlant != null && { perPlant: m.perPlant }),
      ...(m.perM2 != null && { perM2: m.perM2 }),
    })),
    skill: f.skill ?? null,
    ...(everyDays && !isByWeekdays && { everyDays }),
    ...(isByWeekdays && { monthDays: monthDays ?? USUAL_MONTH_DAYS }),
    ...(byTurns.length > 0 && { byTurns }),
    ...(everySeasons && { everySeasons }),
  }
}

/** A rule of the garden's own: what is done to what, between which points of the year, and what it takes. */
export function OwnRuleForm({ rule, onClose }: { rule?: OwnRuleRequest; onClose: () => void }) {
  const { view } = useGardenContext()
  const seen = useBegunWith(rule)
  const save = useGardenWrite(
    ruleEndpoints.saveOwn,
    { gardenId: view.garden.id },
    'The rule is kept; the season’s jobs follow it.',
    () => seen,
  )
  const [form] = Form.useForm<Filled>()
  const what = Form.useWatch('what', form) ?? rule?.on.what ?? 'plants'
  const isByWeekdays = Form.useWatch('isByWeekdays', form) ?? Boolean(rule?.monthDays)
  return (
    <Form
      name={rule?.id ?? 'own-rule'}
      form={form}
      layout="vertical"
      requiredMark={false}
      className="own-rule"
      initialValues={rule ? filledOf(rule) : FRESH}
      onFinish={(f) => save.mutate(requestOf(rule?.id, f), { onSuccess: onClose })}
    >
      <What what={what} />
      <fieldset>
        <legend>Window</legend>
        <Point name="opens" label="Opens" />
        <Point name="bestFrom" label="Best from" />
        <Point name="bestTo" label="Best until" />
        <Point name="closes" label="Closes" />
      </fieldset>
      <Labour what={what} isByWeekdays={isByWeekdays} />
      <Materials />
      <Words />
      <div className="row">
        <Button look="primary" type="submit" loading={save.isPending}>
          Keep the rule
        </Button>
        <Button onClick={onClose}>Cancel</Button>
      </div>
    </Form>
  )
}

/** What is done, to what and in which places. */
function What({ what }: { what: Filled['what'] }) {
  const { data: taxa } = useTaxa()
  return (
    <>
      <div className="own-rule-row">
        <Form.Item name="operation" label="Operation">
          <Select options={operations.map((o) => ({ value: o, label: capitalised(o) }))} />
        </Form.Item>
        <Form.Item
          name="does"
          label="What is done"
          rules={[{ required: true, min: 3, whitespace: true, message: 'Say what is done' }]}
          className="wide"
        >
          <Input maxLength={200} placeholder="Comb out last year’s thatch with a rake" />
        </Form.Item>
      </div>
      <div className="own-rule-row">
        <Form.Item name="what" label="To">
          <Radio.Group
            options={[
              { value: 'plants', label: 'plants' },
              { value: 'places', label: 'whole places' },
            ]}
          />
        </Form.Item>
        <Form.Item name="place" label="In">
          <Select
            options={[
              { value: 'bed', label: 'beds' },
              { value: 'container', label: 'pots' },
              ...(what === 'plants' ? [{ value: 'any', label: 'beds and pots' }] : []),
            ]}
          />
        </Form.Item>
        {what === 'plants' && (
          <>
            <Form.Item name="taxa" label="Taxa" className="wide">
              <Select
                mode="multiple"
                allowClear
                options={taxa?.map((t) => ({ value: t.botanical, label: t.botanical }))}
              />
            </Form.Item>
            <Form.Item name="lifeForms" label="and of these, or of all: forms of life" className="wide">
              <Select mode="multiple" allowClear options={lifeForms.map((l) => ({ value: l, label: l }))} />
            </Form.Item>
          </>
        )}
      </div>
    </>
  )
}

/** How often, how long it takes, and who can do it. */
const Labour = ({ what, isByWeekdays }: { what: Filled['what']; isByWeekdays: boolean }) => (
  <div className="own-rule-row">
    {isByWeekdays ? (
      <Form.Item name="monthDays" label="Again while open, on the">
        <MonthDaysChoice />
      </Form.Item>
    ) : (
      <Form.Item name="everyDays" label="Again while open, every">
        <QuantityInput min={3} max={120} suffix="days" placeholder="once" />
      </Form.Item>
    )}
    <Form.Item name="isByWeekdays" label=" " valuePropName="checked">
      <Checkbox>by weekdays of the month</Checkbox>
    </Form.Item>
    <Form.Item name="byTurns" label="Given by turns" className="wide">
      <Select mode="tags" open={false} suffixIcon={null} placeholder="balanced feed, potash feed" />
    </Form.Item>
    <Form.Item name="everySeasons" label="In one season of">
      <QuantityInput min={1} max={20} placeholder="each" />
    </Form.Item>
    <Form.Item name="setUp" label="Minutes to set up">
      <QuantityInput min={0} max={600} />
    </Form.Item>
    {what === 'plants' && (
      <Form.Item name="perPlant" label="a plant">
        <QuantityInput min={0} max={600} />
      </Form.Item>
    )}
    <Form.Item name="perM2" label="a square metre">
      <QuantityInput min={0} max={600} />
    </Form.Item>
    <Form.Item name="skill" label="Skill">
      <Select allowClear placeholder="none" options={skills.map((s) => ({ value: s, label: s }))} />
    </Form.Item>
  </div>
)

const Materials = () => (
  <Form.List name="materials">
    {(fields, { add, remove }) => (
      <div>
        {fields.map(({ key, name }) => (
          <div className="own-rule-row" key={key}>
            <Form.Item name={[name, 'name']} label="Material" rules={[{ required: true, message: 'Which?' }]}>
              <Input maxLength={120} />
            </Form.Item>
            <Form.Item name={[name, 'unit']} label="in" initialValue="l">
              <Select options={['l', 'kg', 'pieces', 'm'].map((u) => ({ value: u, label: u }))} />
            </Form.Item>
            <Form.Item name={[name, 'perPlant']} label="a plant">
              <QuantityInput min={0} max={1000} />
            </Form.Item>
            <Form.Item name={[name, 'perM2']} label="a square metre">
              <QuantityInput min={0} max={1000} />
            </Form.Item>
            <Button onClick={() => remove(name)}>Leave it out</Button>
          </div>
        ))}
        <Button size="small" onClick={() => add()}>
          Add a material
        </Button>
      </div>
    )}
  </Form.List>
)

/** Tools and cautions, what forbids it, and its reasons. */
const Words = () => (
  <>
    <div className="own-rule-row">
      <Form.Item name="tools" label="Tools" className="wide">
        <Select mode="tags" open={false} suffixIcon={null} placeholder="rake, gloves" />
      </Form.Item>
      <Form.Item name="cautions" label="Cautions" className="wide">
        <Select mode="tags" open={false} suffixIcon={null} />
      </Form.Item>
    </div>
    <Form.Item name="forbids" label="Never">
      <Checkbox.Group options={forbiddenStates.map((f) => ({ value: f, label: forbiddenWords[f] }))} />
    </Form.Item>
    <Form.Item name="why" label="Why" rules={[{ required: true, min: 3, message: 'Say why' }]}>
      <Input maxLength={300} />
    </Form.Item>
    <Form.Item
      name="missed"
      label="When it is missed"
      rules={[{ required: true, min: 3, message: 'Say what then' }]}
    >
      <Input maxLength={300} placeholder="Next spring will do." />
    </Form.Item>
  </>
)

/** A point of the year, some days from it. */
function Point({ name, label }: { name: 'opens' | 'bestFrom' | 'bestTo' | 'closes'; label: string }) {
  const at = Form.useWatch([name, 'at']) as AnchorAt | undefined
  const edges: AnchorAt[] = name === 'opens' ? ['earliest', 'latest'] : name === 'closes' ? ['latest'] : []
  return (
    <div className="own-rule-point">
      <span>{label}</span>
      <Form.Item name={[name, 'days']} noStyle initialValue={0}>
        <QuantityInput
          aria-label={`${label}, days after`}
          min={-200}
          max={200}
          suffix="days after"
          style={{ width: 150 }}
        />
      </Form.Item>
      <Form.Item name={[name, 'at']} noStyle>
        <Select
          aria-label={`${label}, point of the year`}
          popupMatchSelectWidth={false}
          style={{ minWidth: 190 }}
          options={ownAnchors
            .filter((a) => !edges.includes(a))
            .map((a) => ({ value: a, label: anchorWords[a] }))}
        />
      </Form.Item>
      {needsC(at) && (
        <Form.Item name={[name, 'c']} noStyle initialValue={8}>
          <QuantityInput
            aria-label={`${label}, degrees`}
            min={-30}
            max={40}
            suffix="°C"
            style={{ width: 90 }}
          />
        </Form.Item>
      )}
    </div>
  )
}
