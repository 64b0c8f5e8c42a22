import type { Models } from './models'

/** What is done once in the life of a desk, and has been done to its end. */
export const marksIn = ({ marks }: Models) => ({
  has: async (name: string): Promise<boolean> => (await marks.count({ where: { name } })) > 0,
  set: async (name: string): Promise<void> => {
    await marks.upsert({ name, madeAt: new Date() })
  },
})
export type Marks = ReturnType<typeof marksIn>
