import {
  capitalised,
  counted,
  listed,
  portraitOf,
  type Proposal,
  type ProposalAsked,
  type Taxon,
} from '@border/core'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { workers } from '../frame/workers.ts'
import type { Sprites } from '../frontView/sprites.ts'
import { PotPortrait } from './PotPortrait.tsx'
import type { ProposalWorker } from './proposalWorker.ts'
import { proposalWords } from './potWords.ts'
import { bestAfter, frameFor } from './usePotRow.ts'

/** The worker that proposes: what is asked for of one name gives way to the next of that name. */
export const proposing = workers<ProposalWorker, 'fills' | 'relay'>(
  () => new Worker(new URL('./proposalWorker.ts', import.meta.url), { type: 'module' }),
  'The proposals could not be worked out.',
)

/** Three fillings that do best here, each as it would be in full growth. */
export function Proposals({
  taxa,
  asked,
  sprites,
  onTake,
}: {
  taxa: readonly Taxon[]
  asked: ProposalAsked
  sprites: Sprites
  onTake: (proposal: Proposal) => void
}) {
  const [state, setState] = useState<{
    of: string
    found?: Proposal[]
    failed?: boolean
    isAsked?: boolean
  }>()
  // What was found for another season or day says nothing of this one.
  const of = JSON.stringify({ ...asked, have: [...asked.have] })
  const now = state?.of === of ? state : undefined
  const ask = () => {
    setState({ of, isAsked: true })
    proposing('fills', (worker) => worker.propose(taxa, asked))
      .then((found) => setState({ of, found }))
      .catch(() => setState({ of, failed: true }))
  }
  return (
    <div className="proposals">
      <Button size="small" onClick={ask} loading={now?.isAsked ?? false}>
        Propose three
      </Button>
      {now?.failed && <p className="late">They could not be worked out. Ask again.</p>}
      {now?.found?.length === 0 && (
        <p>No three kinds of the library suit this pot, its light and its season.</p>
      )}
      {now?.found && (
        <div className="proposals-row">
          {now.found.map((p) => (
            <Proposed key={p.points} {...{ asked, sprites }} proposal={p} onTake={() => onTake(p)} />
          ))}
        </div>
      )}
    </div>
  )
}

const SMALL = 0.55

function Proposed({
  proposal,
  asked,
  sprites,
  onTake,
}: {
  proposal: Proposal
  asked: ProposalAsked
  sprites: Sprites
  onTake: () => void
}) {
  const plants = proposal.potted.map((p) => ({ ...p, id: p.taxon.botanical, plantedOn: asked.on }))
  const portrait = portraitOf(asked.vessel, plants, {
    on: bestAfter(asked.on, asked.season, asked.year),
    year: asked.year,
  })
  const { height, floor, pxPerM } = frameFor([portrait])
  const small = { height: SMALL * height, floor: SMALL * floor, pxPerM: SMALL * pxPerM }
  const names = listed(proposal.potted.map((p) => `${p.count} ${p.taxon.common}`))
  return (
    <div className="proposals-one">
      <PotPortrait
        {...{ portrait, sprites }}
        wideM={portrait.wideM}
        frame={small}
        label={`Proposed: ${names}`}
      />
      <p>
        {capitalised(names)}. <small className="soft">{proposalWords(proposal)}</small>
      </p>
      <Button size="small" onClick={onTake}>
        Take {counted(proposal.potted.length, 'kind')}
      </Button>
    </div>
  )
}
