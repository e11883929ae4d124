import { planNow } from '@/drafting'
import { migrate, openDatabase } from '@/records'
import { volumeList } from '@/records/queries'
import { ensureDatabase } from '../commands/postgres'
import { medianMilliseconds, type Figure } from './measure'

const volumes = 100_000
const drives = 500

/** What the server answers on a large estate: drafts and lists. */
export async function recordsFigures(url: string): Promise<Figure[]> {
  await ensureDatabase(url)
  const database = openDatabase(url)
  const scope = { database }
  await migrate(database, url)
  await database.query(`
    insert into systems (id, name, address, maker, model, serial, uuid, reach, user_name, sealed_password, enrol_key)
    values ('00000000-0000-4000-8000-000000000001', 'large', 'http://large', 'm', 'm', 's', 'u', 'answering', 'a', '', 'k');
    insert into pools (id, system_id, locator, name, scheme, drive_kind, group_sizes, spare_count, state, raw_bytes, usable_bytes, written_bytes, provisioned_bytes,
      metadata_bytes, snapshot_reserve_bytes, redundancy_bytes, stranded_bytes, spare_bytes)
    values ('00000000-0000-4000-8000-000000000002', '00000000-0000-4000-8000-000000000001', '/p', 'pool', '{"kind":"parity","parityDrives":2}',
      '{"media":"SSD","protocol":"NVMe"}', '[12]', 1, 'fine', 1e15, 8e14, 1e14, 2e14, 1e12, 1e13, 1e14, 0, 1e13);
    insert into drives (id, system_id, locator, bay, name, media, protocol, capacity_bytes, model, serial, state, role)
    select gen_random_uuid(), '00000000-0000-4000-8000-000000000001', '/d/' || n, n, 'drive ' || n, 'SSD', 'NVMe', 7681501126656 + (n % 3) * 1000000000, 'm', 'S' || n, 'fine', 'unassigned'
    from generate_series(1, ${drives}) n;
    insert into volumes (id, system_id, locator, pool_id, name, naa, size_bytes, is_thin, written_bytes)
    select gen_random_uuid(), '00000000-0000-4000-8000-000000000001', '/v/' || n, '00000000-0000-4000-8000-000000000002',
      'volume-' || lpad((n * 7919 % ${volumes})::text, 6, '0') || '-' || n, md5(n::text), (1 + n % 900) * 1073741824::numeric, true, (n % 700) * 1073741824::numeric
    from generate_series(1, ${volumes}) n;
    analyze`)
  const [found] = await database.query('select id from drives')
  const intent = {
    systemId: '00000000-0000-4000-8000-000000000001',
    name: 'draft',
    driveIds: (found as { id: string }[]).map(({ id }) => id),
    scheme: { kind: 'parity', parityDrives: 2 },
    maxGroupDrives: 12,
    spareCount: 8,
    snapshotSharePercent: 10,
  }
  const draft = await medianMilliseconds(15, () => planNow(scope, 'create-pool', intent))
  const first = await medianMilliseconds(15, () => volumeList(scope, { limit: 200 }))
  const middle = await medianMilliseconds(9, () =>
    volumeList(scope, { sort: 'written', isDescending: true, offset: volumes / 2, limit: 200 }),
  )
  const filtered = await medianMilliseconds(9, () => volumeList(scope, { filter: '0042', limit: 200 }))
  const whole = await medianMilliseconds(3, () => database.query('select * from volumes'))
  await database.close()
  return [
    {
      what: `Draft of a pool of ${drives} drives, planned anew at the server`,
      measured: `${draft.toFixed(0)} ms`,
      wanted: 'under 50 ms',
      holds: draft < 50,
    },
    {
      what: `First rows of ${volumes.toLocaleString('en')} volumes at the server`,
      measured: `${first.toFixed(0)} ms`,
      wanted: 'under 100 ms',
      holds: first < 100,
    },
    {
      what: 'Rows from the middle, by written bytes',
      measured: `${middle.toFixed(0)} ms`,
      wanted: 'under 100 ms',
      holds: middle < 100,
    },
    {
      what: 'Rows that a filter leaves',
      measured: `${filtered.toFixed(0)} ms`,
      wanted: 'under 150 ms',
      holds: filtered < 150,
    },
    {
      what: 'First rows beside reading all of them',
      measured: `${(whole / first).toFixed(0)} times as fast`,
      wanted: 'faster',
      holds: first < whole,
    },
  ]
}
