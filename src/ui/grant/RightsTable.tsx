import { Link } from '../parts/Link'
import type { Right } from '@/core/access'
import type { GrantPage } from '@/core/views'
import { RightMark, rightWords } from './RightMark'

/** A row: from a host over NFS, or over SMB, from wherever; a share that is not served so has no right there. */
export interface Row {
  readonly host: GrantPage['hosts'][number] | undefined
  readonly rights: readonly (Right | undefined)[]
}

export interface Chosen {
  readonly hostId: string
  readonly shareId: string
}

interface RightsTableProps {
  readonly shares: GrantPage['shares']
  readonly rows: readonly Row[]
  readonly isChosen: (row: Row, shareId: string) => boolean
  readonly onChoose: (chosen: Chosen) => void
}

/** Hosts below each other, shares beside each other; each cell leads to the why. */
export const RightsTable = ({ shares, rows, isChosen, onChoose }: RightsTableProps) => (
  <div className="overflow-x-auto">
    <table className="plain">
      <thead>
        <tr>
          <th>From</th>
          <th>Address</th>
          {shares.map(each => (
            <th key={each.id} className="text-center">
              <Link className="no-underline" href={`/provision/shares/${each.id}`}>
                {each.name}
              </Link>
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map(each => (
          <tr key={each.host?.id ?? ''}>
            <td className="font-semibold">{each.host?.name ?? 'anywhere'}</td>
            <td className={each.host === undefined ? 'text-second' : 'mono text-second'}>
              {each.host?.addresses[0] ?? 'over SMB'}
            </td>
            {shares.map(({ id, name }, at) => (
              <td key={id} className="p-0 text-center">
                <RightButton
                  right={each.rights[at]}
                  words={`${each.host?.name ?? 'over SMB'}, ${name}`}
                  isChosen={isChosen(each, id)}
                  onChoose={() => onChoose({ hostId: each.host?.id ?? '', shareId: id })}
                />
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
    {rows.length === 0 && <p className="text-second">No host is so.</p>}
  </div>
)

interface RightButtonProps {
  readonly right: Right | undefined
  readonly words: string
  readonly isChosen: boolean
  readonly onChoose: () => void
}

const RightButton = ({ right, words, isChosen, onChoose }: RightButtonProps) =>
  right === undefined ? (
    <span className="text-second" title="not shared so">
      –
    </span>
  ) : (
    <button
      type="button"
      aria-label={`${words}: ${rightWords(right)}`}
      aria-pressed={isChosen}
      className="w-full border border-transparent bg-transparent px-1 py-0 aria-pressed:border-action"
      onClick={onChoose}
    >
      <RightMark right={right} />
    </button>
  )

export const Legend = () => (
  <p className="flex flex-wrap items-center gap-x-5 text-second">
    {(['change', 'read', 'write only', 'none'] as const).map(right => (
      <span key={right} className="inline-flex items-center gap-1">
        <RightMark right={right} /> {rightWords(right)}
      </span>
    ))}
  </p>
)
