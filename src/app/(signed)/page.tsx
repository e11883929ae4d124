import Link from 'next/link'
import { NewDraft } from '@/app/(signed)/NewDraft'
import { reader } from '@/app/server/guard'
import { todayFindings } from '@/core/today'
import { estateLadder, provisionableBytes } from '@/core/estate'
import { score } from '@/core/transfer'
import { countAtStart, countWords, formatBytes } from '@/core/units'
import { estateNow } from '@/drafting'
import { forecastOutcomes, journalOf, latestChanges } from '@/records/changes'
import { workerSilentSeconds } from '@/records/inventory'
import { sinceLatestRound } from '@/records/rounds'
import { pools, systems, unassigned, standingFindings } from '@/records/queries'
import { ChangeState } from '@/ui/changes'
import { Margin, Page as Frame, Title } from '@/ui/frame'
import { Ladder, rungText } from '@/ui/drawings/ladder'
import { Ago } from '@/ui/parts/Ago'
import { State } from '@/ui/parts/State'
import { RoundDone, SinceRound } from '@/ui/watch/rounds'

export const metadata = { title: 'Today' }

export default async function Page() {
  const { scope } = await reader()
  const [allSystems, allPools, free, changes, outcomes] = await Promise.all([
    systems(scope),
    pools(scope),
    unassigned(scope),
    latestChanges(scope, 12),
    forecastOutcomes(scope),
  ])
  const found = (await standingFindings(scope, null)).filter(each => each.exception === null)
  const unproven = await latestChanges(scope, 20, { states: ['unproven'] })
  const findings = todayFindings(allSystems, allPools, found, {
    workerSilentSeconds: await workerSilentSeconds(scope),
    now: new Date(),
    unproven: unproven.map(({ id, title, refusal }) => ({ id, title, why: refusal?.why ?? '' })),
  })
  const running = changes.filter(change => change.state === 'running')
  const progress = new Map(
    await Promise.all(running.map(async change => [change.id, (await journalOf(scope, change.id)).at(-1)] as const)),
  )
  const since = await sinceLatestRound(scope)
  const weekday = (await estateNow(scope)).toLocaleDateString('en', { weekday: 'long' })
  const usable = allPools.reduce((sum, pool) => sum + provisionableBytes(pool), 0n)
  const { coverage, medianAbsolutePercentageError } = score(outcomes)
  const margin = (
    <Margin>
      <h2>What runs</h2>
      {running.length === 0 && <p className="text-second">Nothing runs now.</p>}
      {running.map(change => (
        <div key={change.id} className="border-b border-rule-fine py-2">
          <Link data-row href={`/changes/${change.id}`} className="font-semibold no-underline">
            {change.title}
          </Link>
          <div className="text-second">{progress.get(change.id)?.words ?? 'beginning'}</div>
          <progress
            className="h-2 w-full"
            max={1}
            value={progress.get(change.id)?.doneRatio ?? 0}
            aria-label={`Progress of ${change.title}`}
          />
        </div>
      ))}
      <h3>
        Latest changes{' '}
        <Link href="/changes" className="textlink">
          all
        </Link>
      </h3>
      {changes
        .filter(change => change.state !== 'running')
        .slice(0, 7)
        .map(change => (
          <div key={change.id} className="flex items-baseline justify-between gap-3 border-b border-rule-fine py-[5px]">
            <Link
              data-row
              href={`/changes/${change.id}`}
              className="min-w-0 truncate no-underline"
              title={change.title}
            >
              {change.title}
            </Link>
            <span className="shrink-0 text-sm">
              <ChangeState state={change.state} />
            </span>
          </div>
        ))}
      {changes.length === 0 && <p className="text-second">No change has been made yet.</p>}
      <h3>How good forecasts were</h3>
      <p className="mt-0">
        {coverage === null || medianAbsolutePercentageError === null
          ? 'No change has ended yet from which to tell.'
          : `Of ${outcomes.length} ended changes ${Math.round(coverage * 100)}% ended within their range; 80% should. Half missed by less than ${Math.round(medianAbsolutePercentageError * 100)}%.`}
      </p>
    </Margin>
  )
  return (
    <Frame margin={margin}>
      <Title words={`${weekday}'s round`}>{allSystems.length > 0 && <RoundDone />}</Title>
      {allSystems.length === 0 ? (
        <Empty />
      ) : (
        <>
          <p className="sentence">
            <b>
              {findings.length === 0
                ? 'Nothing needs you.'
                : `${countAtStart(findings.length, 'thing', 'things')} to look at.`}
            </b>{' '}
            {countAtStart(allSystems.length, 'system', 'systems')} with {countWords(allPools.length, 'pool', 'pools')}{' '}
            {allSystems.length === 1 ? 'holds' : 'hold'} {formatBytes(usable)} for volumes
            {free.freeCount > 0
              ? `; ${countWords(free.freeCount, 'drive', 'drives')} of ${formatBytes(free.freeBytes)} ${free.freeCount === 1 ? 'is' : 'are'} free.`
              : '.'}
          </p>
          {since !== undefined && <SinceRound since={since} />}
          {findings.length > 0 && (
            <h3>
              To look at <span>gravest first</span>
            </h3>
          )}
          {findings.map(finding => (
            <div
              key={`${finding.what}/${finding.href}`}
              className="mb-2 border-l-2 pl-[10px]"
              style={{ borderColor: `var(--${finding.gravity})` }}
            >
              <State gravity={finding.gravity}>
                <Link href={finding.href} className="font-semibold no-underline">
                  {finding.what}
                </Link>
              </State>
              <div className="pl-[17px] text-second">
                {finding.why} {finding.remedy}
              </div>
            </div>
          ))}
          <Ladder
            title="The estate, from raw to free"
            rungs={estateLadder(allPools, free.bytes).map(rungText)}
            width={620}
          />
          <h3>Systems</h3>
          <table className="plain">
            <thead>
              <tr>
                <th>System</th>
                <th>What</th>
                <th className="number">Written</th>
                <th className="number">For volumes</th>
                <th>State</th>
                <th>Seen</th>
              </tr>
            </thead>
            <tbody>
              {allSystems.map(system => {
                const own = allPools.filter(pool => pool.systemId === system.id)
                return (
                  <tr key={system.id}>
                    <td>
                      <Link data-row href={`/build/systems/${system.id}`} className="font-semibold no-underline">
                        {system.name}
                      </Link>
                    </td>
                    <td>
                      {system.maker} {system.model}
                    </td>
                    <td className="number">{formatBytes(own.reduce((sum, pool) => sum + pool.writtenBytes, 0n))}</td>
                    <td className="number">
                      {formatBytes(own.reduce((sum, pool) => sum + provisionableBytes(pool), 0n))}
                    </td>
                    <td>
                      {system.reach === 'answering' ? (
                        <State gravity="fine">answers</State>
                      ) : (
                        <State gravity="now">silent</State>
                      )}
                    </td>
                    <td className="text-second">{system.seenAt === null ? 'never' : <Ago at={system.seenAt} />}</td>
                  </tr>
                )
              })}
            </tbody>
          </table>
        </>
      )}
    </Frame>
  )
}

function Empty() {
  return (
    <>
      <p className="sentence">
        <b>The estate is empty.</b> First register a storage system by its management address; then build a pool from
        its drives, and provision a volume to a host.
      </p>
      <ol className="m-0 list-none p-0">
        <li className="border-t border-rule-fine py-2">
          <NewDraft href="/build?draft=register-system">Register a system</NewDraft>
        </li>
        <li className="border-t border-rule-fine py-2 text-second">Then: a pool from its drives</li>
        <li className="border-t border-b border-rule-fine py-2 text-second">
          Then: a volume to a host, proven by a write and a read
        </li>
      </ol>
    </>
  )
}
