import { DataTypes, type Model, type ModelAttributes, type ModelStatic, type Sequelize } from 'sequelize'
import type { Scope } from './database'

/** What a table's column holds, by the model's field; a field `madeAt` is the column `made_at`. */
type Fields<Row> = { readonly [Field in keyof Row & string]: ModelAttributes[string] }

export const kept = {
  id: { type: DataTypes.UUID, primaryKey: true },
  text: { type: DataTypes.TEXT, allowNull: false },
  maybeText: { type: DataTypes.TEXT },
  uuid: { type: DataTypes.UUID, allowNull: false },
  instant: { type: DataTypes.DATE },
  number: { type: DataTypes.BIGINT },
  json: { type: DataTypes.JSONB },
} as const

/** A model of what Wendrel keeps of itself, defined once for each database, as every model is. Objects of the estate have theirs by their kind. */
export const modelFor =
  <Row extends object>(table: string, fields: Fields<Row>) =>
  (database: Sequelize): ModelStatic<Model<Row, Partial<Row>>> => {
    if (!database.isDefined(table))
      database.define(table, ownCopies(fields), {
        tableName: table,
        timestamps: false,
        underscored: true,
      })
    return database.model(table) as ModelStatic<Model<Row, Partial<Row>>>
  }

/** Each field a description of its own: Sequelize writes the column's name into it. */
const ownCopies = (fields: object): ModelAttributes =>
  Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, { ...(field as object) }])) as ModelAttributes

/** Within the transaction of a scope, where it has one. */
export const inside = ({ transaction }: Scope) => ({ transaction: transaction ?? null })

/** A found row as a value. */
export const plain = <Row extends object>(found: Model<Row, Partial<Row>>): Row => found.get({ plain: true })
