import { DatabaseError, ForeignKeyConstraintError, UniqueConstraintError } from 'sequelize'
import { describe, expect, it } from 'vitest'
import { asProblem } from './problems'

/** An error of the driver, as it comes alone or within Sequelize's. */
const driver = (more: object): Error => Object.assign(new Error('(conn) something'), { name: 'SqlError', sql: '', ...more })
const wrapped = (more: object): DatabaseError => new DatabaseError(driver(more) as never)

describe('what goes wrong beneath', () => {
  it.each([
    ['a connection that broke while it was written to', driver({ code: 'EPIPE', fatal: true }), 503, 'database-away'],
    ['the same, wrapped', wrapped({ code: 'EPIPE' }), 503, 'database-away'],
    ['a database that is shutting down', wrapped({ code: 'ER_SERVER_SHUTDOWN', errno: 1053 }), 503, 'database-away'],
    ['a socket that closed', wrapped({ code: 'ER_SOCKET_UNEXPECTED_CLOSE', fatal: true }), 503, 'database-away'],
    [
      'a connection that closed without a code',
      wrapped({ message: 'Cannot execute new commands: connection closed\nsql: ROLLBACK' }),
      503,
      'database-away',
    ],
    ['a driver that cannot read what was typed', wrapped({ message: 'malformed\nsql: INSERT "closed, lost"' }), 500, 'internal'],
    ['a deadlock', wrapped({ errno: 1213, code: 'ER_LOCK_DEADLOCK' }), 409, 'collided'],
    ['two of one key', new UniqueConstraintError({ parent: driver({ errno: 1062 }) as never }), 409, 'collided'],
    ['something deleted that is in use', new ForeignKeyConstraintError({ parent: driver({ errno: 1451 }) as never }), 409, 'record-in-use'],
    ['something named that is gone', new ForeignKeyConstraintError({ parent: driver({ errno: 1452 }) as never }), 422, 'record-unknown'],
    [
      'a key that says "connection closed"',
      new UniqueConstraintError({ parent: driver({ errno: 1062, message: "Duplicate entry 'timeout-closed' for key" }) as never }),
      409,
      'collided',
    ],
    [
      'a statement that holds the words of a lost connection',
      wrapped({ errno: 1064, code: 'ER_PARSE_ERROR', message: 'closed, lost' }),
      500,
      'internal',
    ],
    ['a full disk, of the system', Object.assign(new Error('write'), { code: 'ENOSPC' }), 507, 'disk-full'],
    ['a full disk, of the database', wrapped({ errno: 1114, code: 'ER_RECORD_FILE_FULL' }), 507, 'disk-full'],
    ['a file that is not there', Object.assign(new Error('ENOENT: /secret/place'), { status: 404 }), 404, 'no-such-address'],
    ['anything else', new TypeError('x is undefined'), 500, 'internal'],
  ])('%s is told for what it is', (_, error, status, code) => {
    const problem = asProblem(error)
    expect(problem).toMatchObject({ status, code })
    expect(problem.remedy).toMatch(/\w/)
    expect(JSON.stringify(problem)).not.toContain('secret')
  })
})
