import { askingFrom, fileGates, type FileRequest, type ShareRights } from '@/core/access'
import type { SharePage } from '@/core/views'
import { Mark } from '../../parts/State'

interface NearbyProps {
  readonly rights: ShareRights
  readonly state: Parameters<typeof fileGates>[1]
  readonly request: FileRequest
  readonly hosts: SharePage['hosts']
}

const shownNearby = 4

/** The answer where one thing is otherwise. */
export function Nearby({ rights, state, request, hosts }: NearbyProps) {
  const other = request.operation === 'read' ? 'write' : 'read'
  const cases = [
    { words: `${other}, from the same host`, asked: { ...request, operation: other } as FileRequest },
    { words: `${request.operation}, as root`, asked: { ...request, uid: 0, gid: 0, groups: [] } },
    ...hosts
      .filter(({ addresses }) => addresses[0] !== request.clientAddress)
      .slice(0, shownNearby)
      .map(host => ({
        words: `${request.operation}, from ${host.name}`,
        asked: { ...request, ...askingFrom(host) },
      })),
  ]
  return (
    <>
      <h3>
        Answers nearby <span>one thing otherwise</span>
      </h3>
      <table className="plain">
        <tbody>
          {cases.map(({ words, asked }) => {
            const { allowed, gates } = fileGates(rights, state, asked)
            const stop = gates.find(each => each.state === 'stops')
            return (
              <tr key={words}>
                <td>{words}</td>
                <td className={`whitespace-nowrap ${allowed ? 'text-fine' : 'text-now'}`}>
                  <Mark gravity={allowed ? 'fine' : 'now'} /> {allowed ? 'yes' : 'no'}
                </td>
                <td className="text-second">{stop === undefined ? 'every gate passes' : stop.why}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </>
  )
}
