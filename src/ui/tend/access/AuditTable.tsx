import { Link } from '../../parts/Link'
import type { AuditEntry } from '@/core/views'
import { Ago } from '../../parts/Ago'

/** What was done, in words; `token.withdrawn` as `token withdrawn` where no other words are better. */
const words: Readonly<Record<string, string>> = {
  'session.opened': 'signed in',
  'session.refused': 'failed to sign in',
  'session.closed': 'signed out',
  'change.drafted': 'drafted',
  'change.altered': 'altered',
  'change.discarded': 'discarded',
  'change.carried-out': 'carried out',
  'change.stopped': 'stopped',
  'change.resumed': 'let go on',
  'change.undone': 'had undone',
  'administrator.password-changed': 'changed the password',
  'administrator.code-refused': 'failed with the first code',
}
const wordsOf = (action: string) => words[action] ?? action.replaceAll(/[.-]/g, ' ')

function detailOf(detail: string): string {
  const { title, kind, plan, ...rest } = JSON.parse(detail) as Readonly<Record<string, string | number | boolean>>
  if (typeof title === 'string') return title
  return Object.entries(rest)
    .map(([name, value]) => `${name}: ${value === '' ? 'nothing' : value}`)
    .concat([kind, plan].filter(each => each !== undefined).map(String))
    .join(', ')
}

/** What was done, newest first. */
export function AuditTable({ entries }: { readonly entries: readonly AuditEntry[] }) {
  return (
    <div className="overflow-x-auto">
      <table className="plain">
        <thead>
          <tr>
            <th className="number">No.</th>
            <th>When</th>
            <th>Who</th>
            <th>From</th>
            <th>What</th>
            <th>Of</th>
          </tr>
        </thead>
        <tbody>
          {entries.map(entry => {
            const [what = '', id = ''] = entry.subject.split(' ')
            return <EntryLine key={entry.id} entry={entry} what={what} id={id} />
          })}
        </tbody>
      </table>
    </div>
  )
}

interface EntryLineProps {
  readonly entry: AuditEntry
  readonly what: string
  readonly id: string
}

const EntryLine = ({ entry, what, id }: EntryLineProps) => (
  <tr>
    <td className="number">{entry.id}</td>
    <td className="whitespace-nowrap text-second">
      <Ago at={entry.at} />
    </td>
    <td className="max-w-[160px] truncate" data-hint={entry.who}>
      {entry.who}
    </td>
    <td className="mono whitespace-nowrap text-second">{entry.address ?? '—'}</td>
    <td className="whitespace-nowrap">{wordsOf(entry.action)}</td>
    <td className="max-w-[340px]">
      {what === 'change' ? (
        <Link data-row className="block truncate no-underline" href={`/changes/${id}`}>
          {detailOf(entry.detail)}
        </Link>
      ) : (
        <span className="block truncate" data-hint={`${id} ${detailOf(entry.detail)}`}>
          {[entry.action.startsWith('session') ? '' : id, detailOf(entry.detail)].filter(Boolean).join(', ')}
        </span>
      )}
    </td>
  </tr>
)
