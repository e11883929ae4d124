import { Link } from '../../parts/Link'
import { arrange, type Finding, type FindingTree } from '@/core/findings'
import type { FindingRecord } from '@/core/views'
import { countAtStart, countWords } from '@/core/units'
import { Ago } from '../../parts/Ago'
import { State } from '../../parts/State'
import { Fold } from '../../parts/Fold'

interface FindingListProps {
  readonly records: readonly FindingRecord[]
  /** Where an exception is drafted: the finding's key is added. At its own system where left out. */
  readonly signHref?: string
}

/** What is wrong, causes first: what a finding explains stands beneath it. */
export function FindingList({ records, signHref }: FindingListProps) {
  const byKey = new Map(records.map(record => [record.finding.key, record]))
  const open = records.filter(record => record.exception === null)
  const trees = arrange(open.map(record => record.finding))
  const excepted = records.filter(record => record.exception !== null)
  return (
    <section aria-label="Findings">
      <h3>
        Findings{' '}
        <span>{open.length === 0 ? 'none stand' : `${countWords(open.length, 'stands', 'stand')}, causes first`}</span>
      </h3>
      {open.length === 0 && <State gravity="fine">Nothing is wrong here.</State>}
      <ol className="m-0 list-none p-0">
        {trees.map((tree, index) => (
          // What calls for work at once is read without a press, and of what can wait the first.
          <Branch
            key={tree.finding.key}
            tree={tree}
            byKey={byKey}
            signHref={signHref}
            isOpen={index === 0 || tree.finding.gravity === 'now'}
          />
        ))}
      </ol>
      {excepted.length > 0 && <Excepted records={excepted} />}
    </section>
  )
}

interface BranchProps {
  readonly tree: FindingTree
  readonly byKey: ReadonlyMap<string, FindingRecord>
  readonly signHref: string | undefined
  readonly isOpen?: boolean
}

function Branch({ tree: { finding, beneath }, byKey, signHref, isOpen = false }: BranchProps) {
  const record = byKey.get(finding.key)
  const signAt = signHref ?? `/build/systems/${record?.systemId ?? ''}?draft=sign-exception&finding=`
  return (
    <li className="mt-2" data-finding={finding.check}>
      <Fold
        isOpen={isOpen}
        title={
          <State gravity={finding.gravity}>
            <b className="font-semibold text-ink">{finding.title}</b>
          </State>
        }
      >
        <Detail finding={finding} since={record?.since} signHref={`${signAt}${encodeURIComponent(finding.key)}`} />
      </Fold>
      {beneath.length > 0 && (
        <ol className="m-0 ml-[5px] list-none border-l border-rule pl-3" aria-label={`Explained by: ${finding.title}`}>
          {beneath.map(tree => (
            <Branch key={tree.finding.key} tree={tree} byKey={byKey} signHref={signHref} />
          ))}
        </ol>
      )}
    </li>
  )
}

interface DetailProps {
  readonly finding: Finding
  readonly since: string | undefined
  readonly signHref: string
}

const Detail = ({ finding, since, signHref }: DetailProps) => (
  <div className="pl-[17px] text-second">
    <div>{finding.evidence}</div>
    <div className="mt-1">{finding.risk}</div>
    <div className="mt-1 text-ink">
      {finding.remedy}{' '}
      {finding.draft !== null && (
        <Link className="textlink" href={finding.draft.href}>
          Draft it
        </Link>
      )}
    </div>
    <div className="hint">Without a network: {finding.offline}</div>
    <div className="hint">
      {since !== undefined && (
        <>
          since <Ago at={since} /> ·{' '}
        </>
      )}
      <Link className="textlink" href={signHref}>
        let it stand
      </Link>
    </div>
  </div>
)

const Excepted = ({ records }: { readonly records: readonly FindingRecord[] }) => (
  <Fold title={`${countAtStart(records.length, 'finding stands', 'findings stand')} by a signed exception`}>
    <ul className="m-0 list-none p-0">
      {records.map(({ finding, exception }) => (
        <li key={finding.key} className="border-b border-rule-fine py-1">
          <State gravity="note">{finding.title}</State>
          <div className="pl-[17px] text-second">
            {exception?.reason} Signed by {exception?.signedBy}, until {exception?.until.slice(0, 10)}.
          </div>
        </li>
      ))}
    </ul>
  </Fold>
)
