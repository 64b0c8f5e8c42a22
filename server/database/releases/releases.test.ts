import { readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { gunzipSync } from 'node:zlib'
import type { Lineup } from '@sable/contract/lineup'
import { setupOf, shelfKinds } from '@sable/contract/shelf'
import { readPart } from '@sable/core/formats/readPart'
import { placeOf } from '@sable/core/physics/strength/purpose'
import { predict } from '@sable/core/pipeline/predict'
import { figuresOf } from '@sable/core/search/figures'
import { testKernel } from '@sable/core/testing/kernel'
import { Sequelize } from 'sequelize'
import { afterAll, describe, expect, inject, it } from 'vitest'
import { type OpenServer, openServer } from '../../testing/openServer'
import { talkTo } from '../../testing/talk'

/**
 * Databases as releases left them, each a dump of a desk with lineups, a changed shelf and stored searches, beside what that
 * very release showed of it. A desk of any of them opens today and shows the same.
 */
const folder = dirname(fileURLToPath(import.meta.url))
const dumps = readdirSync(folder).filter((name) => name.endsWith('.sql.gz'))
const opened: OpenServer[] = []
afterAll(() => Promise.all(opened.map((server) => server.close())))

/** Puts a dump where the server will look, and opens the server on it. */
async function openDump(name: string, database: string): Promise<OpenServer> {
  const { socketPath, password } = inject('database')
  const root = new Sequelize('mysql', 'root', password, {
    dialect: 'mariadb',
    dialectOptions: { socketPath, multipleStatements: true },
    logging: false,
  })
  const dump = gunzipSync(readFileSync(join(folder, name))).toString()
  await root.query(`CREATE DATABASE ${database} CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci; USE ${database}; ${dump}`, { raw: true })
  await root.close()
  const server = await openServer(database, false)
  opened.push(server)
  return server
}

/** Nine digits: what was stored as text came through a parser. */
const rounded = (figures: object): object =>
  Object.fromEntries(Object.entries(figures).map(([name, value]) => [name, Number((value as number).toPrecision(9))]))

async function figuresShown(server: OpenServer, { partId, placement, purpose, candidates }: Lineup): Promise<object> {
  const { bytes, fileName, contentKey } = await server.parts.file(partId)
  const part = readPart(bytes, fileName, contentKey)
  const shelf = await server.shelf.read()
  const kernel = await testKernel
  return Object.fromEntries(
    candidates.map(({ name, printer, nozzle, material, spool, values, overrides }) => {
      const setup = setupOf({ printer, nozzle, material, spool }, shelf, '2026-11-27')!
      const prediction = predict(part, placement, setup, values, { kernel, overrides, load: placeOf(purpose) })
      return [name, rounded(figuresOf(prediction, purpose))]
    }),
  )
}

describe.each(dumps)('a desk left by %s', (dump) => {
  const release = dump.replace('.sql.gz', '')

  it('opens, with nothing set aside, and shows what it showed', async () => {
    const server = await openDump(dump, `release_${release.replaceAll('-', '_')}`)
    const { body } = await talkTo(server).get('/api/set-aside').expect(200)
    expect(body).toEqual([])
    const shelf = await server.shelf.read()
    const listed = await server.lineups.list()
    const lineups = await Promise.all(listed.map(({ id }) => server.lineups.get(id)))
    const searches = (await Promise.all(listed.map(({ id }) => server.searches.list(id)))).flat()
    const shown = {
      parts: (await server.parts.list()).map(({ name }) => name),
      shelf: Object.fromEntries(
        shelfKinds.map((kind) => [
          kind,
          shelf[kind].map(({ key, revision, archived }) => `${key} ${revision}${archived ? ' archived' : ''}`),
        ]),
      ),
      lineups: Object.fromEntries(
        await Promise.all(lineups.map(async (lineup) => [lineup.name, await figuresShown(server, lineup)] as const)),
      ),
      searches: await Promise.all(
        searches.map(async ({ id, state, done, of }) => ({
          state,
          done,
          of,
          variants: (await server.searches.variants(id)).map(({ choices, figures }) => ({
            choices: choices.join(),
            ...(figures ? rounded(figures) : {}),
          })),
        })),
      ),
    }
    // Figures that were thought of since stand beside those that it knew.
    expect(shown).toMatchObject(JSON.parse(readFileSync(join(folder, `${release}.shown.json`), 'utf8')))
  })
})
