import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { openDesk } from '../../soak/desk'
import { killUnderWrites } from '../../soak/killUnderWrites'
import { expect, test } from '../desk'

test('twenty kills of server and database under writes lose nothing that was acknowledged, and no write is answered 500', async () => {
  const data = mkdtempSync(join(tmpdir(), 'sable-kills-'))
  const desk = await openDesk(data, 4972)
  const { kills, acknowledged, lost, statuses } = await killUnderWrites(desk, 20, 11)
  await desk.stop()
  rmSync(data, { recursive: true, force: true })
  expect(kills).toBeGreaterThanOrEqual(20)
  expect(acknowledged).toBeGreaterThan(20)
  expect(lost).toBe(0)
  // 0 is no answer at all, 503 a database that is away.
  expect(Object.keys(statuses).filter((status) => !['0', '200', '201', '409', '503'].includes(status))).toEqual([])
  expect(statuses[503] ?? 0).toBeGreaterThan(0)
})
