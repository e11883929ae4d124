import type { Sequelize, Transaction } from 'sequelize'

/** A database, or one transaction of it: what a query needs to run. */
export interface Scope {
  readonly database: Sequelize
  readonly transaction?: Transaction
}
