import { planNow } from '@/drafting'
import { migrate, openDatabase } from '@/records'
import { latestChanges, leftDraft } from '@/records/changes'
import { driveList, search, volumeList } from '@/records/queries'
import { ensureDatabase } from '../commands/postgres'
import { medianMilliseconds, type Figure } from './measure'

const volumes = 100_000
const drives = 500
/** Drives of further systems, and changes that have been, for lists and search. */
const otherDrives = 20_000
const changes = 100_000

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
    insert into systems (id, name, address, maker, model, serial, uuid, reach, user_name, sealed_password, enrol_key)
    select ('00000000-0000-4000-8000-0000000001' || lpad(n::text, 2, '0'))::uuid, 'other-' || n, 'http://other-' || n, 'm', 'm', 's' || n, 'u' || n, 'answering', 'a', '', 'k' || n
    from generate_series(10, 49) n;
    insert into drives (id, system_id, locator, bay, name, media, protocol, capacity_bytes, model, serial, state, role)
    select gen_random_uuid(), ('00000000-0000-4000-8000-0000000001' || (10 + n % 40))::uuid, '/d/' || n, n, 'drive ' || n, 'HDD', 'SAS', 20000588955648, 'm',
      upper(substr(md5(n::text), 1, 10)), 'fine', 'unassigned'
    from generate_series(1, ${otherDrives}) n;
    insert into changes (id, kind, state, title, intent, plan, plan_digest, made_by, edited_by)
    select gen_random_uuid(), 'provision-volume', case when n % 50 = 0 then 'draft' else 'proven' end, 'Provision volume-' || lpad(n::text, 6, '0'),
      jsonb_build_object('name', 'volume-' || n), '{"reads": [], "steps": []}', '', 'operator', 'operator'
    from generate_series(1, ${changes}) n;
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
  const drivesFirst = await medianMilliseconds(9, () => driveList(scope, { limit: 200 }))
  const drivesFiltered = await medianMilliseconds(9, () => driveList(scope, { filter: 'A1B', limit: 200 }))
  const rare = await medianMilliseconds(9, () => search(scope, '0042-'))
  const broad = await medianMilliseconds(5, () => search(scope, 'volume'))
  const recent = await medianMilliseconds(9, () => latestChanges(scope, 50))
  const left = await medianMilliseconds(9, () => leftDraft(scope, 'provision-volume', 'operator', ['not-there']))
  const whole = await medianMilliseconds(3, () => database.query('select * from volumes'))
  await database.close()
  return [
    underFigure(`Draft of a pool of ${drives} drives, planned anew at the server`, draft, 50),
    underFigure(`First rows of ${volumes.toLocaleString('en')} volumes at the server`, first, 100),
    underFigure('Rows from the middle, by written bytes', middle, 100),
    underFigure('Rows that a filter leaves', filtered, 150),
    underFigure(`First rows of ${(drives + otherDrives).toLocaleString('en')} drives`, drivesFirst, 100),
    underFigure('Drives that a filter leaves', drivesFiltered, 150),
    underFigure(`Search for what few have, of ${changes.toLocaleString('en')} changes besides`, rare, 50),
    underFigure('Search for what all have', broad, 100),
    underFigure('Latest changes', recent, 20),
    underFigure('Draft that was left, of 2,000', left, 20),
    {
      what: 'First rows beside reading all of them',
      measured: `${(whole / first).toFixed(0)} times as fast`,
      wanted: 'faster',
      holds: first < whole,
    },
  ]
}

const underFigure = (what: string, milliseconds: number, most: number): Figure => ({
  what,
  measured: `${milliseconds < 10 ? milliseconds.toFixed(1) : milliseconds.toFixed(0)} ms`,
  wanted: `under ${most} ms`,
  holds: milliseconds < most,
})
