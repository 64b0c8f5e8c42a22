import type { DatabaseAddress } from './connect'

/** What the scripts hand over. @throws Error naming what is missing */
export function required(name: string): string {
  const value = process.env[name]
  if (value === undefined) throw new Error(`${name} is not set; start the application with npm start.`)
  return value
}

export const databaseInEnvironment = (): DatabaseAddress => ({
  socketPath: required('SABLE_DB_SOCKET'),
  user: 'root',
  password: required('SABLE_DB_PASSWORD'),
  database: required('SABLE_DB_NAME'),
})
