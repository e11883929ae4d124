import { fieldsOf, isLocated, kindList, type KindName, type ObjectField, type ObjectKind } from '@/core/estate'
import { DataTypes, type ModelStatic, type Model, type Sequelize } from 'sequelize'

/** A field's name as a column: `sizeBytes` is `size_bytes`. */
export const columnOf = (field: string) => field.replace(/[A-Z]/g, letter => `_${letter.toLowerCase()}`)
export const tableOf = (name: KindName) => columnOf(name)

/** The type of a column, as PostgreSQL writes it. */
export const columnTypes: Readonly<Record<ObjectField['type'], string>> = {
  text: 'text',
  uuid: 'uuid',
  bytes: 'numeric',
  integer: 'int',
  number: 'double precision',
  boolean: 'boolean',
  instant: 'timestamptz',
  json: 'jsonb',
}

const dataTypes = {
  text: DataTypes.TEXT,
  uuid: DataTypes.UUID,
  bytes: DataTypes.DECIMAL(25),
  integer: DataTypes.INTEGER,
  number: DataTypes.DOUBLE,
  boolean: DataTypes.BOOLEAN,
  instant: DataTypes.DATE,
  json: DataTypes.JSONB,
} as const satisfies Readonly<Record<ObjectField['type'], unknown>>

/** What every object that a system states has besides what the model says of it. */
const placeFields: readonly ObjectField[] = [
  { field: 'locator', type: 'text', isNullable: false },
  { field: 'missingSince', type: 'instant', isNullable: true },
]

/** The columns of a kind's table: the model's, and the place of what systems state. */
export function columnsOf(kind: ObjectKind): ObjectField[] {
  const fields = fieldsOf(kind)
  const known = new Set(fields.map(each => each.field))
  return isLocated(kind) ? [...fields, ...placeFields.filter(each => !known.has(each.field))] : fields
}

/**
 * The Sequelize model of a kind, defined once for each database, with its associations: each object belongs to those to which it
 * refers, under the field's name without its `Id`.
 */
export function modelOf(database: Sequelize, name: KindName): ModelStatic<Model> {
  if (!database.isDefined(name)) defineAll(database)
  return database.model(name)
}

function defineAll(database: Sequelize): void {
  for (const kind of kindList)
    database.define(
      kind.name,
      Object.fromEntries(
        columnsOf(kind).map(({ field, type, isNullable }) => [
          field,
          { type: dataTypes[type], field: columnOf(field), allowNull: isNullable, primaryKey: field === 'id' },
        ]),
      ),
      { tableName: tableOf(kind.name), timestamps: false },
    )
  for (const kind of kindList)
    for (const [field, of] of Object.entries({
      ...kind.references,
      ...(isLocated(kind) ? { systemId: 'systems' } : {}),
    }))
      database.model(kind.name).belongsTo(database.model(of as KindName), {
        foreignKey: field,
        as: field.replace(/Id$/, ''),
        constraints: false,
      })
}
