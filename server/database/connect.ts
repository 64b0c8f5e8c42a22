import { Sequelize } from 'sequelize'

export interface DatabaseAddress {
  readonly socketPath: string
  readonly user: string
  readonly password: string
  readonly database: string
}

/** A query that is not answered within this is given up, unless it is known to take long. */
const PATIENCE_MS = 15_000

/** Opens a pool of connections to the private MariaDB. Connections that break are replaced at the next query. */
export function connect({ socketPath, user, password, database }: DatabaseAddress, patienceMs = PATIENCE_MS): Sequelize {
  return new Sequelize(database, user, password, {
    dialect: 'mariadb',
    // A query that is not answered is given up, or a hung database would hang every request with it.
    dialectOptions: { socketPath, connectTimeout: 10_000, socketTimeout: patienceMs },
    pool: { max: 8, min: 0, acquire: 12_000, idle: 10_000 },
    logging: false,
    define: { underscored: true, timestamps: false, freezeTableName: true },
  })
}
