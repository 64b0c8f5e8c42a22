/**
 * How a page learns that a worker has ended. A worker that runs out of memory or is killed says nothing; but a lock that it
 * holds for as long as it lives goes to whoever waits for it (Web Locks API, W3C).
 */
export const newLife = (): string => `sable-worker-${crypto.randomUUID()}`

/** In the worker: holds its lock from now on. Resolves once it has it. */
export const holdLife = (life: string): Promise<void> =>
  new Promise((resolve) => {
    void navigator.locks.request(life, () => {
      resolve()
      return new Promise(() => {})
    })
  })

/** In the page, once the worker holds its lock: resolves when the worker has ended. */
export const endOfLife = async (life: string): Promise<void> => {
  await navigator.locks.request(life, () => {})
}
