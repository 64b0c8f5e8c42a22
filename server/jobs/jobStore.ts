import type { Job, JobKindName, JobState } from '@sable/contract/job'
import { jobSchema } from '@sable/contract/job'
import type { Transaction } from 'sequelize'
import type { JobRow, Models } from '../database/models'
import { readEach, reasonOf } from '../database/readEach'
import { notFound, unreadableRecord } from '../http/problems'

export type Progress = Partial<Pick<Job, 'state' | 'done' | 'reused' | 'computed' | 'seconds'>> & { readonly problem?: string | null }

/** How jobs of all kinds stand, the newest first: what waits, runs, and has been. */
export function createJobStore(models: Models) {
  const rowOf = async (id: string) => {
    const row = await models.jobs.findByPk(id)
    if (!row) throw notFound('job', id)
    return row
  }
  return {
    /** @param size units that there are */
    async create(id: string, kind: JobKindName, size: number, transaction: Transaction): Promise<void> {
      await models.jobs.create(
        { id, kind, state: 'waiting', done: 0, size, reused: 0, computed: 0, seconds: 0, problem: null, createdAt: new Date() },
        { transaction },
      )
    },

    async list(): Promise<Job[]> {
      return readEach(await models.jobs.findAll({ order: [['createdAt', 'DESC']] }), asJob).values
    },

    /** Jobs that were waiting or running when the server ended, the oldest first. */
    async unfinished(): Promise<string[]> {
      const rows = await models.jobs.findAll({ where: { state: ['waiting', 'running'] }, order: [['createdAt', 'ASC']] })
      return rows.map(({ id }) => id)
    },

    async get(id: string): Promise<Job> {
      const row = await rowOf(id)
      try {
        return asJob(row)
      } catch (error) {
        throw unreadableRecord('job', id, reasonOf(error))
      }
    },

    async update(id: string, progress: Progress): Promise<Job> {
      const row = await rowOf(id)
      await row.update(progress)
      return asJob(row)
    },

    async remove(id: string): Promise<void> {
      await (await rowOf(id)).destroy()
    },
  }
}

export type JobStore = ReturnType<typeof createJobStore>

export const asJob = (row: JobRow): Job =>
  jobSchema.parse({
    id: row.id,
    kind: row.kind,
    state: row.state as JobState,
    done: row.done,
    of: row.size,
    reused: row.reused,
    computed: row.computed,
    seconds: row.seconds,
    ...(row.problem === null ? {} : { problem: row.problem }),
    createdAt: row.createdAt.toISOString(),
  })
