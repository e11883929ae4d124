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
          {works.map(work => (
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
                <Outcome work={work} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}

function Outcome({ work }: { readonly work: PieceWork }) {
  const { state, doneRatio, endedEstateAt, startedEstateAt, p10Seconds, p90Seconds, wasForecast } = work
  if (state === 'running') return <State gravity="note">{(doneRatio * 100).toFixed(0)}% done</State>
  const took = endedEstateAt === null ? 0 : (Date.parse(endedEstateAt) - Date.parse(startedEstateAt)) / 1000
  if (state === 'failed') return <State gravity="now">ended early, after {formatSeconds(took)}</State>
  if (!wasForecast) return <State gravity="note">took {formatSeconds(took)}</State>
  const isIn = endedEstateAt !== null && took >= p10Seconds && took <= p90Seconds
  return (
    <State gravity={isIn ? 'fine' : 'soon'}>
      took {formatSeconds(took)}
      {isIn ? '' : ', outside the range'}
    </State>
  )
}
