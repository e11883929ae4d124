import fc from 'fast-check'
import { randomBytes } from 'node:crypto'
import type { Inventory, InventoryParts } from '@/ports'
import { rows, type Scope } from '../database'
import { tableOf } from '../objects'
import { enrolled, freshDatabase, sampleDriveFound, sampleInventory } from '../testing'
import { forgetSystem, nextReading, storeInventory, storeParts, type Kept } from '.'

let records: Awaited<ReturnType<typeof freshDatabase>>
let scope: Scope
beforeAll(async () => {
  records = await freshDatabase()
  scope = { database: records.database }
})
afterAll(() => records.close())

const sample = sampleInventory()
const [pool] = sample.pools
const [volume] = sample.volumes
if (pool === undefined || volume === undefined) throw new Error('The sample has no pool or no volume.')

/** What stands at a place: nothing, or one of some that are told apart by their names, of one of two sizes. */
const objects = (places: readonly string[]) =>
  fc.tuple(
    ...places.map(place =>
      fc.option(fc.record({ place: fc.constant(place), who: fc.nat(2), size: fc.nat(1), at: fc.nat(2) })),
    ),
  )
type Seen = { readonly place: string; readonly who: number; readonly size: number; readonly at: number } | null
const there = <T>(seen: readonly Seen[], made: (one: NonNullable<Seen>) => T): T[] =>
  seen.flatMap(one => (one === null ? [] : [made(one)]))

const naa = (kind: number, who: number, place: string) => `6${kind}${who}${place.length}`.padEnd(32, '0')
const volumesOf = (seen: readonly Seen[]): Inventory['volumes'] =>
  there(seen, ({ place, who, size, at }) => ({
    ...{ ...volume, locator: place, naa: naa(1, who, place), name: `v${who}` },
    ...{ sizeBytes: BigInt(size + 1) * 10n ** 12n, poolLocator: ['/p', '/q', '/nowhere'][at] ?? '' },
  }))
/** What can be otherwise from one reading to the next. */
const kinds: {
  readonly [Name in 'enclosures' | 'pools' | 'volumes' | 'snapshots' | 'drives']: fc.Arbitrary<Inventory[Name]>
} = {
  enclosures: objects(['/e']).map(seen =>
    there(seen, ({ place, who }) => ({ locator: place, name: `e${who}`, bayCount: 24, baysPerRow: 24 })),
  ),
  pools: objects(['/p', '/q']).map(seen =>
    there(seen, ({ place, who, size }) => ({
      ...{ ...pool, locator: place, name: `p${who}`, writtenBytes: BigInt(size) },
    })),
  ),
  volumes: objects(['/v', '/vv', '/vvv']).map(volumesOf),
  snapshots: objects(['/s']).map(seen =>
    there(seen, ({ place, who, at }) => ({
      ...{
        locator: place,
        name: `s${who}`,
        naa: naa(2, who, place),
        volumeLocator: ['/v', '/vv', '/nowhere'][at] ?? null,
      },
      ...{ sizeBytes: 1n, takenAt: null, state: 'pending', ownBytes: 0n, heldUntil: null },
    })),
  ),
  drives: objects(['/d', '/dd']).map(seen =>
    there(seen, ({ place, who, size, at }) =>
      sampleDriveFound(place.length, {
        ...{ locator: place, serial: `${place}${who}`, powerOnHours: size, poolLocator: ['/p', '/q', null][at] },
      }),
    ),
  ),
}
const one = <Name extends keyof typeof kinds>(name: Name) =>
  kinds[name].map((list): Partial<Inventory> => ({ [name]: list }))
/** A reading of everything, and those after it: of one kind otherwise, as it was, or of some volumes by themselves. */
const readings = fc
  .tuple(
    fc.record(kinds),
    fc.array(
      fc.oneof(
        ...(Object.keys(kinds) as (keyof typeof kinds)[]).map(one),
        fc.constant({}),
        objects(['/v', '/vv']).map(seen => ({ only: volumesOf(seen) })),
      ),
      { minLength: 1, maxLength: 5 },
    ),
  )
  .map(([first, edits]) => {
    let whole: Inventory = { ...sample, ...first }
    const after = edits.map((edit): Inventory | InventoryParts => {
      if ('only' in edit) return { volumes: edit.only }
      whole = { ...whole, ...edit }
      return whole
    })
    return [{ ...sample, ...first }, ...after]
  })

/** What stands in the records of a system, each object under its place, and what it names by theirs. */
async function standing(systemId: string) {
  const found = await Promise.all(
    (Object.keys(kinds) as (keyof typeof kinds)[]).map(
      async name =>
        [
          name,
          await rows<Record<string, unknown>>(scope, `select * from ${tableOf(name)} where system_id = $1`, [systemId]),
        ] as const,
    ),
  )
  const places = new Map(
    found.flatMap(([name, list]) => list.map(each => [String(each['id']), `${name} ${String(each['locator'])}`])),
  )
  const told = (value: unknown) => (typeof value === 'string' ? (places.get(value) ?? value) : value)
  return found.flatMap(([name, list]) =>
    list
      .map(({ revision: _, system_id: __, missing_since, ...row }) =>
        JSON.stringify([
          name,
          missing_since !== null,
          Object.entries(row).map(([column, value]) => [column, told(value)]),
        ]),
      )
      .sort(),
  )
}

/** What stands after each of some readings by one that remembers what was stated last, or by one that compares everything. */
async function after(list: readonly (Inventory | InventoryParts)[], remembers: boolean) {
  const { systemId } = await enrolled(scope, randomBytes(32), 'heron')
  const stood: (readonly string[])[] = []
  let last: Kept | undefined
  for (const found of list) {
    const store = 'identity' in found ? storeInventory : storeParts
    last = await store(
      records.database,
      systemId,
      found as Inventory,
      await nextReading(scope),
      remembers ? last : undefined,
    )
    stood.push(await standing(systemId))
  }
  await forgetSystem(scope, systemId)
  return stood
}

test('one that looks only at what is stated otherwise than before leaves what one leaves that compares everything', () =>
  fc.assert(
    fc.asyncProperty(readings, async list => expect(await after(list, true)).toEqual(await after(list, false))),
    { numRuns: 25 },
  ))
