import { benchModels } from '@sable/bench/models'
import type { Page } from '../desk'

/** The demo's lineup on the scan of 69,451 triangles, 80 mm tall; one candidate of 0.2 mm layers. */
export async function openScan(page: Page): Promise<string> {
  const scan = benchModels().find(({ name }) => name === 'scan')!
  const upload = await page.request.post('/api/parts?fileName=scan.stl', {
    data: Buffer.from(scan.bytes),
    headers: { 'Content-Type': 'application/octet-stream' },
  })
  const part = await upload.json()
  const lineups = await (await page.request.get('/api/lineups')).json()
  const demo = await (await page.request.get(`/api/lineups/${lineups[0].id}`)).json()
  const candidates = [{ ...demo.candidates[0], id: crypto.randomUUID() }]
  const made = await page.request.post('/api/lineups', { data: { ...demo, partId: part.id, placement: scan.placement, candidates } })
  return (await made.json()).id
}
