import Link from 'next/link'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { wholeNumber } from '@/core/input'
import { changeStates } from '@/core/plan'
import { countAtStart, formatSeconds, formatSecondsRange } from '@/core/units'
import { timelineOf, type ChangeRecord } from '@/core/views'
import { latestChanges } from '@/records/changes'
import { ChangeState } from '@/ui/changes'
import { Page as Frame, Title } from '@/ui/frame'
import { Ago } from '@/ui/parts/Ago'

export const metadata = { title: 'Changes' }

const pageChanges = 100

const tookWords = (change: ChangeRecord) => {
  const { tookSeconds } = timelineOf(change, [], { wall: new Date(0), estate: new Date(0) })
  return tookSeconds === null || change.state === 'running' ? '' : formatSeconds(tookSeconds)
}

export default async function Page({
  searchParams,
}: {
  readonly searchParams: Promise<{ readonly state?: string; readonly before?: string }>
}) {
  const { state, before } = await onlyTexts(searchParams)
  const from = wholeNumber(before)
  const wanted = changeStates.find(each => each === state)
  const changes = await latestChanges((await reader()).scope, pageChanges, {
    ...(wanted === undefined ? {} : { states: [wanted] }),
    ...(from === undefined ? {} : { before: from }),
  })
  const running = changes.filter(change => change.state === 'running').length
  const last = changes.at(-1)
  return (
    <Frame>
      <Title words="Changes">
        <nav aria-label="States" className="flex flex-wrap gap-4">
          {[undefined, ...changeStates].map(each => (
            <Link
              key={each ?? 'all'}
              href={each === undefined ? '/changes' : `/changes?state=${each}`}
              aria-current={wanted === each ? 'page' : undefined}
              className={`no-underline ${wanted === each ? 'border-b border-ink' : 'text-second hover:text-ink'}`}
            >
              {each ?? 'all'}
            </Link>
          ))}
        </nav>
      </Title>
      <p className="sentence">
        <b>{running === 0 ? 'Nothing runs now.' : `${countAtStart(running, 'change runs', 'changes run')} now.`}</b>{' '}
        {changes.length === 0 ? 'No change is in this state.' : 'Each keeps its plan, what happened, and the evidence.'}
      </p>
      <div className="overflow-x-auto">
        <table className="plain">
          <thead>
            <tr>
              <th className="number">No.</th>
              <th>Change</th>
              <th>State</th>
              <th>By</th>
              <th>Made</th>
              <th className="number">Forecast</th>
              <th className="number">Took</th>
              <th>What stands</th>
            </tr>
          </thead>
          <tbody>
            {changes.map(change => (
              <tr key={change.id}>
                <td className="number">{change.number}</td>
                <td className="max-w-[420px]">
                  <Link
                    data-row
                    href={`/changes/${change.id}`}
                    className="block truncate font-semibold no-underline"
                    title={change.title}
                  >
                    {change.title}
                  </Link>
                </td>
                <td>
                  <ChangeState state={change.state} />
                </td>
                <td>{change.madeBy}</td>
                <td className="whitespace-nowrap text-second">
                  <Ago at={change.madeAt} />
                </td>
                <td className="number text-second">
                  {formatSecondsRange(change.plan.forecast.p10Seconds, change.plan.forecast.p90Seconds)}
                </td>
                <td className="number">{tookWords(change)}</td>
                <td className="text-second">{change.refusal?.why ?? change.stands ?? ''}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {changes.length === pageChanges && last !== undefined && (
        <p>
          <Link
            className="textlink"
            href={`/changes?${new URLSearchParams({ ...(wanted === undefined ? {} : { state: wanted }), before: `${last.number}` })}`}
          >
            Older ones
          </Link>
        </p>
      )}
    </Frame>
  )
}
