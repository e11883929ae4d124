import { Link } from '@/ui/parts/Link'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { countAtStart } from '@/core/units'
import type { AuditEntry } from '@/core/views'
import { auditEntries, firstBrokenEntry } from '@/records/audit'
import { AuditTable } from '@/ui/tend/access'
import { Margin, Page as Frame, Title } from '@/ui/frame'
import { Copied } from '@/ui/parts/Copied'
import { State } from '@/ui/parts/State'

export const metadata = { title: 'Record' }

const pageEntries = 100

export default async function Page({ searchParams }: { readonly searchParams: Promise<{ readonly before?: string }> }) {
  const { before } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const from = /^[0-9]{1,15}$/.test(before ?? '') ? Number(before) : Number.MAX_SAFE_INTEGER
  const [entries, broken, [newest]] = await Promise.all([
    auditEntries(scope, from, pageEntries),
    firstBrokenEntry(scope),
    auditEntries(scope, Number.MAX_SAFE_INTEGER, 1),
  ])
  const last = entries.at(-1)
  return (
    <Frame margin={<WhetherItHolds broken={broken} newest={newest} />}>
      <Title words="Record" />
      <p className="sentence">
        <b>
          {newest === undefined
            ? 'Nothing has been done yet.'
            : `${countAtStart(newest.id, 'act stands', 'acts stand')} on record.`}
        </b>{' '}
        Who signed in or failed to, drafted, altered, carried out, stopped and undid; who made or withdrew tokens and
        administrators, and altered settings.
      </p>
      <AuditTable entries={entries} />
      {entries.length === pageEntries && last !== undefined && (
        <p>
          <Link className="textlink" href={`/account/record?before=${last.id}`}>
            Older ones
          </Link>
        </p>
      )}
    </Frame>
  )
}

interface HoldsProps {
  /** The first entry that does not follow from the one before. */
  readonly broken: number | undefined
  readonly newest: AuditEntry | undefined
}

const WhetherItHolds = ({ broken, newest }: HoldsProps) => (
  <Margin
    foot={
      <a className="button quiet" href="/api/v1/audit.jsonl">
        Export as JSON lines
      </a>
    }
  >
    <h2>Whether it holds</h2>
    {broken === undefined ? (
      <State gravity="fine">Every entry follows from the one before it.</State>
    ) : (
      <State gravity="now">From entry {broken} on, entries were altered or are missing.</State>
    )}
    <p>
      Each entry bears the SHA-256 of itself and of the hash before it. Entries are only ever added; one that is
      altered, moved or taken out breaks the chain from there on.
    </p>
    {newest !== undefined && (
      <>
        <h3>Hash of entry {newest.id}</h3>
        <p className="mt-0">Keep it elsewhere: it proves later that nothing up to here was altered.</p>
        <Copied text={newest.hash} />
      </>
    )}
  </Margin>
)
