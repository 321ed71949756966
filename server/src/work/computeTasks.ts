import type {
  CareGarden,
  Climate,
  Condition,
  Explanation,
  FreeSpots,
  GardenLight,
  JudgedGarden,
  Laying,
  Likelihood,
  Look,
  Openings,
  PlacedJob,
  PotLight,
  PotsAbout,
  PotStanding,
  ScheduleProblem,
  Reading,
  Region,
  Scene,
  SignedPlanting,
  StandingGarden,
  SuspectedChange,
  Taxon,
  TaxonRecord,
  TellingLook,
  Supposition,
  Year,
} from '@border/core'
import type { FeatureView } from '@border/contract'
import type { MessagePort } from 'node:worker_threads'
import type { LineTask, PotSpotsTask } from './potTasks.ts'
import type { BloomTask, RecordTask } from './recordTasks.ts'
import type { ChoiceTask, RelocationTask, SitesTask } from './reworkTasks.ts'

/** What a thread is told as it begins. */
export interface ThreadOptions {
  /** It gives way to all others: nobody waits for what it works out. */
  inBackground: boolean
}

/** What the threads are asked for: the function's name and what it is given. */
export interface ComputeTasks {
  light: { garden: StandingGarden; then: string; on: string }
  spots: {
    garden: Pick<JudgedGarden, 'plantings' | 'reserved' | 'climate' | 'suspected'>
    light: GardenLight
    on: string
  }
  openings: { garden: StandingGarden; light: Pick<GardenLight, 'plantings'>; on: string }
  judge: {
    garden: JudgedGarden
    light: Pick<GardenLight, 'plantings'>
    spots: FreeSpots
    openings: Openings
    on: string
  }
  ahead: { garden: StandingGarden; on: string; years: number; ailing: string[] }
  whatIfs: { garden: StandingGarden; on: string; suppositions: Supposition[][] }
  record: RecordTask
  bloom: BloomTask
  potLight: { scene: Scene; pots: Pick<PotStanding, 'x' | 'y' | 'rimHeightM'>[]; on: string }
  absence: { pots: PotStanding[]; light: PotLight[]; about: PotsAbout; away: { from: string; to: string } }
  containers: { pots: PotStanding[]; light: PotLight[]; about: PotsAbout }
  potSpots: PotSpotsTask
  line: LineTask
  diagnose: { plantings: SignedPlanting[]; table: Likelihood[]; year: Year }
  schedule: { problem: ScheduleProblem; rounds: number }
  why: { problem: ScheduleProblem; placed: PlacedJob[]; jobId: string }
  scheduleTelling: { problem: ScheduleProblem; port: MessagePort }
  care: { garden: CareGarden; on: string; until: string }
  /** How a picture would lie under the plan. */
  lie: { laying: Laying }
  explain: { scene: Scene; readings: Reading[]; days: Look[][]; most: number; shown: number }
  /** Of a garden's places what every point of them offers. */
  sites: SitesTask
  relocation: RelocationTask
  ways: RelocationTask & { plantingId: string }
  tray: ChoiceTask & { chosen: { taxon: Taxon; count: number }[] }
  palette: ChoiceTask & { apart: string[][] }
  successions: {
    garden: StandingGarden
    features: FeatureView[]
    conditions: Record<string, Condition>
    library: Taxon[]
    climate: Climate
    on: string
    regions: readonly Region[]
    suspected: readonly SuspectedChange[]
    record: Pick<TaxonRecord, 'taxon' | 'again' | 'outliers'>[]
  }
}

/** What explains a garden’s readings, and which looks of each day would tell more. */
export interface ExplainedTask {
  explanations: Explanation[]
  used: number
  unusable: string[]
  telling: TellingLook[][]
}
