import { ruleEndpoints, type PotView } from '@border/contract'
import { isWoody, type PotVerdict, type PotVerdictName } from '@border/core'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { sentences } from './potWords.ts'
import type { RowPot } from './usePotRow.ts'

interface Props {
  pot: RowPot
  of: PotView
  onFill: () => void
}

const headWords: Record<PotVerdictName, string> = {
  'keep as it is': 'Keep it as it is',
  'cut back': 'Cut back',
  refresh: 'Refresh its mix',
  'swap now': 'Swap it now',
  'pot on': 'Pot on',
  'retire the pot': 'Retire the pot',
}

/** What is proposed for a container, why, and the way to it; what else there is to say for it below. */
export function Verdicts(props: Props) {
  const [first, ...others] = props.of.verdicts
  if (!first) return null
  const rest = others.filter((v) => v.because.length > 0)
  return (
    <section className="pot-verdict" aria-label="What is proposed">
      <div className="spread">
        <div>
          <h3>{headWords[first.verdict]}</h3>
          <p>{sentences(first.because)}</p>
        </div>
        <Act {...props} verdict={first} />
      </div>
      {rest.map((v) => (
        <div key={v.verdict} className="spread">
          <p>
            <b>{headWords[v.verdict]}.</b> <span className="soft">{sentences(v.because)}</span>
          </p>
          <Act {...props} verdict={v} />
        </div>
      ))}
    </section>
  )
}

/** What takes a verdict up: nothing is proposed that leads nowhere. */
function Act({ pot, of, onFill, verdict: { verdict } }: Props & { verdict: PotVerdict }) {
  const { isHead, today } = useGardenContext()
  const { search } = useLocation()
  if (!isHead) return null
  if (verdict === 'swap now') return <Button onClick={onFill}>Fill it anew</Button>
  if (verdict === 'cut back') return <Link to={{ pathname: '../season', search }}>Its job in the season</Link>
  if (verdict === 'retire the pot')
    return <Link to={{ pathname: '../plan', search }}>End it on the plan</Link>
  if (verdict === 'refresh') {
    const isWhole = of.mix.state?.wholeOn != null && of.mix.state.wholeOn <= today
    return <Ask ruleId={isWhole ? 'refresh-mix-whole' : 'refresh-mix-part'} subjectId={pot.id} />
  }
  if (verdict === 'pot on') {
    const bound = of.roots.filter((r) => r.fillOn !== null && r.fillOn <= today).map((r) => r.botanical)
    const plant = pot.plants.find((p) => isWoody(p.taxon) && bound.includes(p.taxon.botanical))
    return plant ? <Ask ruleId="pot-on-woody" subjectId={plant.id} /> : null
  }
  return null
}

function Ask({ ruleId, subjectId }: { ruleId: string; subjectId: string }) {
  const { view } = useGardenContext()
  const ask = useGardenWrite(
    ruleEndpoints.askJob,
    { gardenId: view.garden.id, rule: ruleId },
    (_, { title }) => `In the season now: ${title}.`,
  )
  return (
    <Button loading={ask.isPending} onClick={() => ask.mutate({ subjectId })}>
      Make it a job
    </Button>
  )
}
