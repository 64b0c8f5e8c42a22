import { vi } from 'vitest'
import { run } from './run'

/** Runs a command in this process, where the compiler is warm. */
export async function sable(...args: string[]) {
  const [out, err] = [vi.spyOn(process.stdout, 'write').mockReturnValue(true), vi.spyOn(process.stderr, 'write').mockReturnValue(true)]
  try {
    const status = await run(args)
    const written = ({ mock }: typeof out): string => mock.calls.map(([text]) => String(text)).join('')
    const [stdout, stderr] = [written(out), written(err)]
    return { status, stdout, stderr, json: () => JSON.parse(stdout) }
  } finally {
    out.mockRestore()
    err.mockRestore()
  }
}
