type Bytes<T> = { readonly [K in keyof T]: T[K] extends bigint ? string : T[K] }
type Snake<S extends string> = S extends `${infer A}${infer B}`
  ? `${A extends Capitalize<A> ? (A extends Lowercase<A> ? A : `_${Lowercase<A>}`) : A}${Snake<B>}`
  : S
/** A row of a hand-written query as PostgreSQL gives it: names with underscores, NUMERIC as text. */
export type RowOf<T> = { readonly [K in keyof T & string as Snake<K>]: Bytes<T>[K] }

const camel = (name: string) => name.replace(/_([a-z])/g, (_, letter: string) => letter.toUpperCase())

/** Such a row with its names as the model has them; columns named as bytes become bigint, dates ISO 8601 text. */
export function fromRow<T>(row: object): T {
  return Object.fromEntries(
    Object.entries(row).map(([name, value]) => [
      camel(name),
      name.endsWith('_bytes') && typeof value === 'string'
        ? BigInt(value)
        : value instanceof Date
          ? value.toISOString()
          : (value as unknown),
    ]),
  ) as T
}
