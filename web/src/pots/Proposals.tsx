import { capitalised, counted, type Proposal, type ProposalAsked, type Taxon } from '@border/core'
import { Button } from '../frame/Button.tsx'
import type { Sprites } from '../frontView/sprites.ts'
import { proposalWords } from './potWords.ts'
import { namesOf, SmallPortrait } from './SmallPortrait.tsx'
import { useProposed } from './useProposed.ts'

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
  const { found, failed, isWaiting, ask } = useProposed('fills', asked, (worker) =>
    worker.propose(taxa, asked),
  )
  return (
    <div className="proposals">
      <Button size="small" onClick={ask} loading={isWaiting}>
        Propose three
      </Button>
      {failed && <p className="late">They could not be worked out. Ask again.</p>}
      {found?.length === 0 && <p>No three kinds of the library suit this pot, its light and its season.</p>}
      {found && (
        <div className="proposals-row">
          {found.map((p) => (
            <div key={p.points} className="proposals-one">
              <SmallPortrait
                {...{ asked, sprites }}
                potted={p.potted}
                on={asked.on}
                season={asked.season}
                label={`Proposed: ${namesOf(p.potted)}`}
              />
              <p>
                {capitalised(namesOf(p.potted))}. <small className="soft">{proposalWords(p)}</small>
              </p>
              <Button size="small" onClick={() => onTake(p)}>
                Take {counted(p.potted.length, 'kind')}
              </Button>
            </div>
          ))}
        </div>
      )}
    </div>
  )
}
