import { latestDue, placeTogether } from '@/core/classes'
import type { Volume } from '@/core/estate'
import { samplePool } from '@/core/estate/testing/samples'
import { occurrences } from '@/core/schedule'
import { SnapshotSpace } from '@/core/snapshots'
import { classUses, volumeCopies, volumePage } from '@/records/queries'
import { volumesDue } from '@/records/inventory'
import { objects } from '@/records/objects'
import { estateOf, large } from './largeEstate'
import { inWords, timed, under, type Figure } from './measure'

const schedules = 1000
const snapshots = 4000
const volumesWith = 10_000
const snapshotsEach = 60
const tebibyte = 1024n ** 4n
const classId = '00000000-0000-4000-8000-0000000000c1'

/** Schedules, snapshots and places under classes: computed, and at the server. */
export async function snapshotFigures(url: string): Promise<Figure[]> {
  return [...(await computed()), ...(await atTheServer(url))]
}

async function computed(): Promise<Figure[]> {
  const year = [new Date('2026-01-01T00:00:00Z'), new Date('2027-01-01T00:00:00Z')] as const
  const zones = ['Europe/Lisbon', 'America/St_Johns', 'Asia/Kolkata', 'Australia/Lord_Howe']
  const all = Array.from({ length: schedules }, (_, index) => ({
    start: '20260101T000000',
    timeZone: zones[index % zones.length] ?? 'UTC',
    rule: `FREQ=DAILY;BYHOUR=${index % 24};BYMINUTE=${index % 60};BYSECOND=${Math.floor(index / 60)}`,
    except: [],
  }))
  const expanded = await timed(3, () => all.forEach(each => occurrences(each, ...year)))
  const runs = Array.from({ length: snapshots * 6 }, (_, index) => {
    const first = (index * 7919) % snapshots
    return { first, last: Math.min(snapshots - 1, first + (index % 40)), bytes: BigInt(index + 1) * 4096n }
  })
  const built = await timed(3, () => new SnapshotSpace(snapshots, runs))
  const space = new SnapshotSpace(snapshots, runs)
  const asked = 10_000
  const reclaimed = await timed(5, () => {
    for (let index = 0; index < asked; index += 1) {
      const first = (index * 31) % snapshots
      space.reclaimOfRun(first, Math.min(snapshots - 1, first + (index % 997)))
    }
  })
  const counted = await timed(3, () => runs.filter(({ first, last }) => first >= 100 && last <= 900).length)
  const placed = await timed(5, () =>
    placeTogether(wanted, pools, { isThin: true, serviceClass: undefined, answering }),
  )
  return [
    under(`A year of ${schedules.toLocaleString('en')} daily schedules in four zones`, expanded, 1000),
    under(`Table of ${snapshots.toLocaleString('en')} snapshots' space, built`, built, 2000),
    {
      what: `What a run of ${snapshots.toLocaleString('en')} snapshots gives back`,
      measured: `${((reclaimed.median / asked) * 1e6).toFixed(0)} ns (${(counted.median / (reclaimed.median / asked)).toFixed(0)} times as fast as looking through all)`,
      wanted: 'under 1 ms',
      holds: reclaimed.best / asked < 1,
    },
    under(`Places of ${wanted.length} volumes over ${pools.length} pools`, placed, 500),
  ]
}

const answering: ReadonlySet<string> = new Set([large])
const wanted = Array.from({ length: 300 }, (_, index) => ({
  name: `v-${index}`,
  sizeBytes: BigInt(1 + (index % 7)) * tebibyte,
}))
const pools = Array.from({ length: 40 }, (_, index) =>
  samplePool({
    id: `pool-${index}`,
    systemId: large,
    locator: `/p/${index}`,
    name: `pool-${index}`,
    driveKind: { media: index % 3 === 0 ? 'HDD' : 'SSD', protocol: 'SAS' },
    spareCount: 1,
    rawBytes: 130n * tebibyte,
    usableBytes: BigInt(60 + index) * tebibyte,
    writtenBytes: BigInt(index) * tebibyte,
    provisionedBytes: BigInt(index) * tebibyte,
    revision: 1,
  }),
)

async function atTheServer(url: string): Promise<Figure[]> {
  const database = await estateOf(url)
  const scope = { database }
  await seed(database)
  const [one] = await objects(scope, 'volumes', { where: { classId }, limit: 1 })
  const page = await timed(9, () => snapshotPage(scope, one))
  const uses = await timed(5, () => classUses(scope))
  const now = new Date('2026-03-01T00:00:00Z')
  const due = latestDue('FREQ=HOURLY', 'UTC', now) ?? now
  const looked = await timed(5, () => volumesDue(scope, large, { classId }, due, 2000))
  const everything = await timed(1, () => database.query('select * from snapshots'))
  await database.close()
  const [volumes, all] = [volumesWith.toLocaleString('en'), (volumesWith * snapshotsEach).toLocaleString('en')]
  return [
    under(`A volume's page with its ${snapshotsEach} snapshots, of ${all}`, page, 300),
    under(`How the promises of ${volumes} volumes under a class are kept`, uses, 500),
    under(`Which of ${volumes} volumes under a class are due`, looked, 300),
    {
      what: 'A page of snapshots beside reading all of them',
      measured: `${(everything.median / page.median).toFixed(0)} times as fast (${inWords(page.median)})`,
      wanted: 'faster',
      holds: page.best < everything.median,
    },
  ]
}

async function snapshotPage(scope: Parameters<typeof volumePage>[0], volume: Volume | undefined): Promise<void> {
  const page = await volumePage(scope, volume?.id ?? '')
  const copies = await volumeCopies(scope, volume?.id ?? '', page?.serviceClass ?? undefined)
  if (copies.snapshots.length !== snapshotsEach) throw new Error(`The page has ${copies.snapshots.length} snapshots.`)
}

async function seed(database: Awaited<ReturnType<typeof estateOf>>): Promise<void> {
  const [found] = await database.query('select from snapshots limit 1')
  if (found.length > 0) return
  await database.query(`
    insert into service_classes (id, name, losses_survived, media, snapshot_rule, time_zone, retention, made_by_step)
    values ('${classId}', 'Nothing lost', 2, 'any', 'FREQ=HOURLY', 'UTC', '{"hourly": 24, "daily": 36}', 'bench');
    update volumes set class_id = '${classId}' where id in (select id from volumes order by id limit ${volumesWith});
    insert into snapshots (id, system_id, locator, volume_id, name, naa, size_bytes, taken_at, state, own_bytes, held_until, due_at)
    select gen_random_uuid(), system_id, locator || '/s/' || n, id, name || '.' || n, md5(name || n), size_bytes,
      timestamptz '2026-01-01' + n * interval '1 hour', 'consistent', n * 4096, '[]', timestamptz '2026-01-01' + n * interval '1 hour'
    from volumes, generate_series(1, ${snapshotsEach}) n where class_id is not null;
    analyze snapshots; analyze volumes`)
}
