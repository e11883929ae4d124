import { entryWords, whoWords, type AccessEntry } from '@/core/access'

const reachWords = ({ isInherited }: AccessEntry) =>
  isInherited === true ? 'here, and in what is made here' : 'here only'

interface AccessListTableProps {
  readonly acl: readonly AccessEntry[]
  readonly ownerUid: number
  readonly ownerGid: number
}

/** Entries of the root directory in the order in which they count; whom none is for is refused. */
export function AccessListTable({ acl, ownerUid, ownerGid }: AccessListTableProps) {
  const numbers: Readonly<Record<string, string>> = { 'OWNER@': `, uid ${ownerUid}`, 'GROUP@': `, gid ${ownerGid}` }
  return (
    <>
      <h3>
        Access list of its root <span>the first entry that is for somebody counts, and not the mode</span>
      </h3>
      <table className="plain rows">
        <thead>
          <tr>
            <th className="number">Entry</th>
            <th>Who</th>
            <th>What they may</th>
            <th>Where</th>
          </tr>
        </thead>
        <tbody>
          {acl.map((entry, index) => (
            <tr key={index}>
              <td className="number" data-head="Entry">
                {index + 1}
              </td>
              <td className="font-semibold">
                {whoWords(entry.who)}
                <span className="mono font-normal text-second">{numbers[entry.who] ?? ''}</span>
              </td>
              <td data-head="What they may" className={entry.kind === 'deny' ? 'text-now' : undefined}>
                {entryWords(entry)}
              </td>
              <td data-head="Where">{reachWords(entry)}</td>
            </tr>
          ))}
          <tr className="text-second">
            <td />
            <td>anybody else</td>
            <td>refused: no entry. uid 0 passes.</td>
            <td />
          </tr>
        </tbody>
      </table>
    </>
  )
}
