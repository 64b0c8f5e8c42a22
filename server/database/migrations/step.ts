import type { ModelAttributeColumnOptions, QueryInterface } from 'sequelize'

/**
 * A step of the schema. It may have been killed after any of its statements and is then run again from its beginning: each
 * statement looks before it alters. It imports nothing that says what records mean today.
 */
export interface Step {
  readonly name: string
  readonly up: (db: QueryInterface) => Promise<unknown>
}

/** Adds a column unless it is there. Tables need no such help: they are created if they do not exist. */
export async function addColumn(db: QueryInterface, table: string, column: string, attributes: ModelAttributeColumnOptions): Promise<void> {
  if (!(column in (await db.describeTable(table)))) await db.addColumn(table, column, attributes)
}
