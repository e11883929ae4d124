/**
 * Rows that go to a browser in columns, where each value that many rows share stands once: of a system's drives a quarter of what they
 * weigh as a list of objects, in which every row repeats the names of its fields, its system and its model.
 */
export interface Packed<Row> {
  readonly fields: readonly (keyof Row & string)[]
  /** By field: its values in order; or which of a few each row has. */
  readonly columns: readonly (
    | readonly unknown[]
    | { readonly few: readonly unknown[]; readonly at: readonly number[] }
  )[]
  readonly length: number
}

/** @param rows all with the same fields */
export function packed<Row extends object>(rows: readonly Row[]): Packed<Row> {
  const fields = Object.keys(rows[0] ?? {}) as (keyof Row & string)[]
  return {
    fields,
    length: rows.length,
    columns: fields.map(field => {
      const values = rows.map(row => row[field])
      const few = [...new Set(values)]
      if (few.length * 2 > values.length) return values
      const indexOf = new Map(few.map((value, index) => [value, index]))
      return { few, at: values.map(value => indexOf.get(value) ?? 0) }
    }),
  }
}

export function unpacked<Row extends object>({ fields, columns, length }: Packed<Row>): Row[] {
  return Array.from({ length }, (_, index) => {
    const row: Record<string, unknown> = {}
    fields.forEach((field, place) => {
      const column = columns[place]
      row[field] = column === undefined || 'few' in column ? column?.few[column.at[index] ?? 0] : column[index]
    })
    return row as Row
  })
}
