import { proposeFills, type Proposal, type ProposalAsked, type Taxon } from '@border/core'
import { expose } from 'comlink'

const worker = {
  /** Fillings of a container from the kinds there are. */
  propose: (kinds: readonly Taxon[], asked: ProposalAsked): Proposal[] => proposeFills(kinds, asked),
}
export type ProposalWorker = typeof worker

expose(worker)
