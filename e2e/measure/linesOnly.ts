import type { Reporter, TestCase, TestResult } from '@playwright/test/reporter'

/** Prints what tests measured and nothing else but what failed. */
export default class LinesOnly implements Reporter {
  onStdOut(chunk: string | Buffer): void {
    process.stdout.write(chunk)
  }

  onTestEnd({ title }: TestCase, { status, error }: TestResult): void {
    if (status !== 'passed') process.stderr.write(`${title}: ${status}. ${error?.message ?? ''}\n`)
  }
}
