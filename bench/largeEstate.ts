import type { Sequelize } from 'sequelize'
import { planNow } from '@/drafting'
import { migrate, openDatabase } from '@/records'
import { toJson } from '@/records/database'
import { ensureDatabase } from '../commands/postgres'

/** How much of an estate is filled in (counts). */
export interface Size {
  readonly volumes: number
  /** Drives of the system that has the volumes. */
  readonly drives: number
  /** Drives of forty further systems. */
  readonly otherDrives: number
  readonly changes: number
}

/** What Wendrel is made for. */
export const whole: Size = { volumes: 100_000, drives: 500, otherDrives: 20_000, changes: 100_000 }

const pool = '00000000-0000-4000-8000-000000000002'
export const large = '00000000-0000-4000-8000-000000000001'

/** A database with such an estate; one that has been filled already is taken as it is. */
export async function estateOf(url: string, size: Size = whole): Promise<Sequelize> {
  await ensureDatabase(url)
  const database = openDatabase(url)
  await migrate(database, url)
  const [found] = await database.query('select from systems limit 1')
  if (found.length === 0) await seedEstate(database, size)
  return database
}

async function seedEstate(database: Sequelize, { volumes, drives, otherDrives, changes }: Size): Promise<void> {
  await database.query(`
    insert into systems (id, name, address, maker, model, serial, uuid, reach, user_name, sealed_password, enrol_key)
    values ('00000000-0000-4000-8000-000000000001', 'large', 'http://large', 'm', 'm', 's', 'u', 'answering', 'a', '', 'k');
    insert into pools (id, system_id, locator, name, scheme, drive_kind, group_sizes, spare_count, state, raw_bytes, usable_bytes, written_bytes, provisioned_bytes,
      metadata_bytes, snapshot_reserve_bytes, redundancy_bytes, stranded_bytes, spare_bytes)
    values ('00000000-0000-4000-8000-000000000002', '00000000-0000-4000-8000-000000000001', '/p', 'pool', '{"kind":"parity","parityDrives":2}',
      '{"media":"SSD","protocol":"NVMe"}', '[12]', 1, 'fine', 1e15, 8e14, 1e14, 2e14, 1e12, 1e13, 1e14, 0, 1e13);
    insert into enclosures (id, system_id, locator, name, bay_count, bays_per_row)
    select ('00000000-0000-4000-8000-0000000002' || lpad(n::text, 2, '0'))::uuid, '00000000-0000-4000-8000-000000000001', '/e/' || n, 'enclosure ' || n, 24, 12
    from generate_series(0, ${drives} / 24) n;
    insert into drives (id, system_id, locator, enclosure_id, bay, name, media, protocol, capacity_bytes, model, serial, state, role)
    select gen_random_uuid(), '00000000-0000-4000-8000-000000000001', '/d/' || n, ('00000000-0000-4000-8000-0000000002' || lpad((n / 24)::text, 2, '0'))::uuid, 1 + n % 24, 'drive ' || n, 'SSD', 'NVMe', 7681501126656 + (n % 3) * 1000000000, 'm', 'S' || n, 'fine', 'unassigned'
    from generate_series(1, ${drives}) n;
    insert into volumes (id, system_id, locator, pool_id, name, naa, size_bytes, is_thin, written_bytes)
    select gen_random_uuid(), '00000000-0000-4000-8000-000000000001', '/v/' || n, '00000000-0000-4000-8000-000000000002',
      'volume-' || lpad((n * 7919 % ${volumes})::text, 6, '0') || '-' || n, md5(n::text), (1 + n % 900) * 1073741824::numeric, true, (n % 700) * 1073741824::numeric
    from generate_series(1, ${volumes}) n;
    insert into systems (id, name, address, maker, model, serial, uuid, reach, user_name, sealed_password, enrol_key)
    select ('00000000-0000-4000-8000-0000000001' || lpad(n::text, 2, '0'))::uuid, 'other-' || n, 'http://other-' || n, 'm', 'm', 's' || n, 'u' || n, 'answering', 'a', '', 'k' || n
    from generate_series(10, 49) n;
    insert into drives (id, system_id, locator, bay, name, media, protocol, capacity_bytes, model, serial, state, role)
    select gen_random_uuid(), ('00000000-0000-4000-8000-0000000001' || (10 + n % 40))::uuid, '/d/' || n, n, 'drive ' || n, 'HDD', 'SAS', 20000588955648, 'm',
      upper(substr(md5(n::text), 1, 10)), 'fine', 'unassigned'
    from generate_series(1, ${otherDrives}) n;
    analyze`)
  await seedChanges(database, changes)
}

/** Changes that have been, each with the plan of a real one. */
async function seedChanges(database: Sequelize, changes: number): Promise<void> {
  const wish = { name: 'volume-new', purpose: 'data', size: '1 TiB', poolId: pool, isThin: true, hostGroupId: '' }
  const plan = await planNow({ database }, 'provision-volume', wish)
  await database.query(
    `insert into changes (id, kind, state, title, intent, plan, plan_digest, made_by, edited_by)
     select gen_random_uuid(), 'provision-volume', case when n % 50 = 0 then 'draft' else 'proven' end, 'Provision volume-' || lpad(n::text, 6, '0'),
       jsonb_build_object('name', 'volume-' || n), $1::jsonb, '', 'operator', 'operator'
     from generate_series(1, ${changes}) n`,
    { bind: [toJson(plan)] },
  )
  // As the database tidies up by itself in time: entries of text indices that are still to be sorted in are read one by one.
  await database.query('vacuum analyze')
}
