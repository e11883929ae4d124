import { runMigrations } from 'graphile-worker'
import { QueryTypes, type Sequelize } from 'sequelize'
import { Umzug } from 'umzug'
import { keepRevisionTriggers } from './revisionTriggers'
import { sql as estate } from './0001-estate.sql'
import { sql as changes } from './0002-changes.sql'
import { sql as access } from './0003-access.sql'
import { sql as nodes } from './0004-nodes.sql'
import { sql as edge } from './0005-edge.sql'
import { sql as engine } from './0006-engine.sql'
import { sql as protocols } from './0007-protocols.sql'
import { sql as views } from './0008-views.sql'
import { sql as rounds } from './0009-rounds.sql'
import { sql as lists } from './0010-lists.sql'
import { sql as notices } from './0011-notices.sql'
import { sql as search } from './0012-search.sql'
import { sql as snapshots } from './0013-snapshots.sql'
import { sql as consistencyGroups } from './0014-consistency-groups.sql'
import { sql as metrics } from './0015-metrics.sql'
import { sql as applications } from './0016-applications.sql'
import { sql as secrets } from './0017-secrets.sql'
import { sql as paths } from './0018-paths.sql'
import { sql as telling } from './0019-telling.sql'
import { sql as files } from './0020-files.sql'
import { sql as limits } from './0021-limits.sql'
import { sql as directories } from './0022-directories.sql'
import { sql as fileScans } from './0023-file-scans.sql'
import { sql as volumeLimits } from './0024-volume-limits.sql'
import { sql as signIn } from './0025-sign-in.sql'
import { sql as reviews } from './0026-reviews.sql'
import { sql as plans } from './0027-plans.sql'
import { sql as connectionTests } from './0028-connection-tests.sql'
import { sql as ownSchedules } from './0029-own-schedules.sql'
import { sql as tellingOfChanges } from './0030-telling-of-changes.sql'
import { sql as settled } from './0031-settled.sql'
import { sql as shareNotes } from './0032-share-notes.sql'
import { sql as plansPacked } from './0033-plans-packed.sql'
import { sql as standingStill } from './0034-standing-still.sql'
import { sql as fileSystems } from './0035-file-systems.sql'
import { sql as lastAsked } from './0036-last-asked.sql'
import { sql as graver } from './0037-graver.sql'
import { sql as serviceGrants } from './0038-service-grants.sql'
import { sql as certificateEnds } from './0039-certificate-ends.sql'
import { sql as caughtUp } from './0040-caught-up.sql'
import { sql as driveErrors } from './0041-drive-errors.sql'
import { sql as ungrouped } from './0042-ungrouped.sql'
import { sql as accessLists } from './0043-access-lists.sql'
import { sql as partners } from './0044-partners.sql'
import { sql as placesOfHosts } from './0045-places-of-hosts.sql'
import { sql as copiesElsewhere } from './0046-copies-elsewhere.sql'
import { sql as moments } from './0047-moments.sql'
import { sql as snapshotDirectories } from './0048-snapshot-directories.sql'
import { sql as warmth } from './0049-warmth.sql'
import { sql as promiseDays } from './0050-promise-days.sql'
import { sql as folders } from './0051-folders.sql'
import { sql as promiseLooks } from './0052-promise-looks.sql'
import { sql as caughtUpAgain } from './0053-caught-up.sql'
import { sql as brokenMirrors } from './0054-broken-mirrors.sql'

const steps = [
  { name: '0001-estate', sql: estate },
  { name: '0002-changes', sql: changes },
  { name: '0003-access', sql: access },
  { name: '0004-nodes', sql: nodes },
  { name: '0005-edge', sql: edge },
  { name: '0006-engine', sql: engine },
  { name: '0007-protocols', sql: protocols },
  { name: '0008-views', sql: views },
  { name: '0009-rounds', sql: rounds },
  { name: '0010-lists', sql: lists },
  { name: '0011-notices', sql: notices },
  { name: '0012-search', sql: search },
  { name: '0013-snapshots', sql: snapshots },
  { name: '0014-consistency-groups', sql: consistencyGroups },
  { name: '0015-metrics', sql: metrics },
  { name: '0016-applications', sql: applications },
  { name: '0017-secrets', sql: secrets },
  { name: '0018-paths', sql: paths },
  { name: '0019-telling', sql: telling },
  { name: '0020-files', sql: files },
  { name: '0021-limits', sql: limits },
  { name: '0022-directories', sql: directories },
  { name: '0023-file-scans', sql: fileScans },
  { name: '0024-volume-limits', sql: volumeLimits },
  { name: '0025-sign-in', sql: signIn },
  { name: '0026-reviews', sql: reviews },
  { name: '0027-plans', sql: plans },
  { name: '0028-connection-tests', sql: connectionTests },
  { name: '0029-own-schedules', sql: ownSchedules },
  { name: '0030-telling-of-changes', sql: tellingOfChanges },
  { name: '0031-settled', sql: settled },
  { name: '0032-share-notes', sql: shareNotes },
  { name: '0033-plans-packed', sql: plansPacked },
  { name: '0034-standing-still', sql: standingStill },
  { name: '0035-file-systems', sql: fileSystems },
  { name: '0036-last-asked', sql: lastAsked },
  { name: '0037-graver', sql: graver },
  { name: '0038-service-grants', sql: serviceGrants },
  { name: '0039-certificate-ends', sql: certificateEnds },
  { name: '0040-caught-up', sql: caughtUp },
  { name: '0041-drive-errors', sql: driveErrors },
  { name: '0042-ungrouped', sql: ungrouped },
  { name: '0043-access-lists', sql: accessLists },
  { name: '0044-partners', sql: partners },
  { name: '0045-places-of-hosts', sql: placesOfHosts },
  { name: '0046-copies-elsewhere', sql: copiesElsewhere },
  { name: '0047-moments', sql: moments },
  { name: '0048-snapshot-directories', sql: snapshotDirectories },
  { name: '0049-warmth', sql: warmth },
  { name: '0050-promise-days', sql: promiseDays },
  { name: '0051-folders', sql: folders },
  { name: '0052-promise-looks', sql: promiseLooks },
  { name: '0053-caught-up', sql: caughtUpAgain },
  { name: '0054-broken-mirrors', sql: brokenMirrors },
] as const

/** The number of a lock that lets one process at a time migrate. */
const migrationLock = 7_261_554

/** Brings a database to this version's schema, and the queue's with it. Safe to call from several processes at once. */
export async function migrate(database: Sequelize, url: string): Promise<void> {
  await database.query(
    'create table if not exists migrations (name text primary key, at timestamptz not null default now())',
  )
  await database.transaction(async transaction => {
    await database.query('select pg_advisory_xact_lock($1)', { bind: [migrationLock], transaction })
    const umzug = new Umzug({
      migrations: steps.map(({ name, sql }) => ({
        name,
        up: async () => void (await database.query(sql, { transaction })),
      })),
      storage: {
        executed: async () =>
          (
            await database.query<{ name: string }>('select name from migrations order by name', {
              type: QueryTypes.SELECT,
              transaction,
            })
          ).map(({ name }) => name),
        logMigration: async ({ name }) =>
          void (await database.query('insert into migrations (name) values ($1)', { bind: [name], transaction })),
        unlogMigration: async ({ name }) =>
          void (await database.query('delete from migrations where name = $1', { bind: [name], transaction })),
      },
      logger: undefined,
    })
    await umzug.up()
    await keepRevisionTriggers(database, transaction)
  })
  await runMigrations({ connectionString: url })
}
