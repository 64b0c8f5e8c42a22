import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { readPart } from '@sable/core/formats/readPart'
import { Sequelize } from 'sequelize'
import { inject } from 'vitest'
import { openDesk } from '../app/openDesk'
import { connect } from '../database/connect'
import { seedDemo } from '../features/demo/seed'
import type { PartReader } from '../features/parts/readInProcess'
import type { OpenLanes } from '../jobs/lanes'
import { inProcess } from './inProcess'

export const TEST_PORT = 4999

/** Reads a file in this process, where the compiler is warm. */
const readHere: PartReader = async (path, fileName) => readPart(readFileSync(path), fileName, '').report

/** The whole server on a database of its own, empty but for what `seed` puts there. */
export async function openServer(name: string, seed = true, lanes: OpenLanes = inProcess(2), read = readHere) {
  const uploadFolder = mkdtempSync(join(tmpdir(), 'sable-uploads-'))
  const { socketPath, password } = inject('database')
  const root = new Sequelize('mysql', 'root', password, { dialect: 'mariadb', dialectOptions: { socketPath }, logging: false })
  await root.query(`CREATE DATABASE IF NOT EXISTS ${name}`)
  await root.close()
  const address = { socketPath, user: 'root', password, database: name }
  const sequelize = connect(address)
  const backupFolder = join(uploadFolder, 'backups')
  const desk = await openDesk({ sequelize, address, uploadFolder, backupFolder, read, lanes, port: TEST_PORT })
  if (seed) await seedDemo(desk, false, uploadFolder)
  const close = async (): Promise<void> => {
    await desk.jobRunner.close()
    await sequelize.close()
    rmSync(uploadFolder, { recursive: true, force: true })
  }
  return { ...desk, sequelize, uploadFolder, close }
}

export type OpenServer = Awaited<ReturnType<typeof openServer>>
