import type { PieceWork } from '@/core/views'
import { formatSeconds, formatSecondsRange } from '@/core/units'
import { Bytes } from '../../parts/Bytes'
import { State } from '../../parts/State'

/** What a cluster has done with its pieces: what was forecast when it began, and what happened. */
export function PieceWorks({ works }: { readonly works: readonly PieceWork[] }) {
  if (works.length === 0) return null
  return (
    <>
      <h3>
        Pieces moved and made anew <span>forecast, and what happened</span>
      </h3>
      <table className="plain">
        <tbody>
          {works.map(work => {
            const took =
              work.endedEstateAt === null
                ? null
                : (Date.parse(work.endedEstateAt) - Date.parse(work.startedEstateAt)) / 1000
            const isIn = took !== null && took >= work.p10Seconds && took <= work.p90Seconds
            return (
              <tr key={work.id} data-piece-work={work.state}>
                <td>
                  {work.kind === 'rebuild' ? 'Made anew' : 'Moved'} <Bytes bytes={work.bytes} />
                </td>
                <td>
                  {work.wasForecast
                    ? `forecast ${formatSecondsRange(work.p10Seconds, work.p90Seconds)}, by ${work.boundBy}`
                    : 'ended before it was seen: nothing was forecast'}
                </td>
                <td>
                  {work.state === 'running' ? (
                    <State gravity="note">{(work.doneRatio * 100).toFixed(0)}% done</State>
                  ) : work.state === 'failed' ? (
                    <State gravity="now">ended early, after {formatSeconds(took ?? 0)}</State>
                  ) : !work.wasForecast ? (
                    <State gravity="note">took {formatSeconds(took ?? 0)}</State>
                  ) : (
                    <State gravity={isIn ? 'fine' : 'soon'}>
                      took {formatSeconds(took ?? 0)}
                      {isIn ? '' : ', outside the range'}
                    </State>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </>
  )
}
