import type { jobDoneRequest } from '@border/contract'
import type { IsoDate } from '@border/core'
import type { z } from 'zod'
import type { Db } from '../database/connect.ts'
import type { TrulyNoted } from '../deviceClock.ts'
import type { Job } from '../store/jobs.ts'

/** Who records, in which garden, on which day. */
export interface Recorder {
  gardenId: string
  practiceId: string
  personId: string
  today: IsoDate
}

/** A job as it is recorded done, among the jobs of its garden. */
export interface Recording extends Recorder {
  trx: Db
  job: Job
  jobs: readonly Job[]
  done: TrulyNoted<z.infer<typeof jobDoneRequest>>
}
