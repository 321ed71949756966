import {
  proposeFills,
  relayOf,
  type Proposal,
  type ProposalAsked,
  type RelayAsked,
  type RelayLeg,
  type Taxon,
} from '@border/core'
import { expose } from 'comlink'

const worker = {
  /** Fillings of a container from the kinds there are. */
  propose: (kinds: readonly Taxon[], asked: ProposalAsked): Proposal[] => proposeFills(kinds, asked),
  /** Two years of them, one after the other. */
  relay: (kinds: readonly Taxon[], asked: RelayAsked): RelayLeg[] => relayOf(kinds, asked),
}
export type ProposalWorker = typeof worker

expose(worker)
