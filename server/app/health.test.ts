import { setTimeout as wait } from 'node:timers/promises'
import { problemSchema } from '@sable/contract/problem'
import { QueryTypes, Sequelize } from 'sequelize'
import request from 'supertest'
import { expect, inject, it } from 'vitest'
import { openServer, TEST_PORT } from '../testing/openServer'

const HOST = `localhost:${TEST_PORT}`

it('health asks the database: no answer of the database is an answer of 503, and the server stays', async () => {
  const server = await openServer('health_tests', false)
  const health = () => request(server.app).get('/api/health').set('Host', HOST)
  expect((await health()).body).toEqual({ status: 'ok' })

  const { socketPath, password, pid } = inject('database')
  process.kill(pid, 'SIGSTOP')
  try {
    const answer = await health()
    expect(answer.status).toBe(503)
    expect(problemSchema.parse(answer.body)).toMatchObject({
      code: 'database-away',
      remedy: expect.stringContaining('Nothing you typed is lost'),
    })
  } finally {
    process.kill(pid, 'SIGCONT')
  }

  // Connections that the database closes are replaced without anybody noticing.
  const root = new Sequelize('mysql', 'root', password, { dialect: 'mariadb', dialectOptions: { socketPath }, logging: false })
  const rows = await root.query<{ id: number }>("SELECT id FROM information_schema.processlist WHERE db = 'health_tests'", {
    type: QueryTypes.SELECT,
  })
  expect(rows.length).toBeGreaterThan(0)
  for (const { id } of rows) await root.query(`KILL ${id}`, { type: QueryTypes.RAW })
  await root.close()
  await wait(50)
  expect((await health()).status).toBe(200)
  await server.close()
})
