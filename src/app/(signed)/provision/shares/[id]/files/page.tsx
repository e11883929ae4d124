import { Link } from '@/ui/parts/Link'
import { notFound } from 'next/navigation'
import { plain } from '@/app/(signed)/plain'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { isUuid } from '@/core/input'
import { countAtStart, formatBytes } from '@/core/units'
import type { FilesPage } from '@/core/views'
import { filesPage } from '@/records/queries'
import { Page as Frame, SubSections, Title } from '@/ui/frame'
import { Moment } from '@/ui/parts/Moment'
import { FilesSheet, SliceMargin, sliceWords } from '@/ui/provision/files'
import { provisionParts } from '../../../parts'

export const metadata = { title: 'Files' }

interface PageProps {
  readonly params: Promise<{ readonly id: string }>
  readonly searchParams: Promise<Readonly<Record<string, string | undefined>>>
}

/** What the files of a share are, as a host has found them. */
export default async function Page({ params, searchParams }: PageProps) {
  const { id } = await params
  const { slice = 'all' } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const page = isUuid(id) ? await filesPage(scope, id, slice.slice(0, 2000)) : undefined
  if (page === undefined) notFound()
  const shown = plain(page)
  return (
    <Frame margin={<SliceMargin page={shown} words={sliceWords(page.slice.text, page.owners)} />}>
      <Title words={`Files of ${page.share.name}`}>
        <SubSections of={provisionParts} />
      </Title>
      <Sentence page={page} />
      {shown.scan !== null && <FilesSheet page={shown} scan={shown.scan} />}
    </Frame>
  )
}

function Sentence({ page: { share, scan } }: { readonly page: FilesPage }) {
  const again = (
    <Link className="textlink print:hidden" href={`/provision/shares?sel=${share.id}&draft=report-files`}>
      {scan === null ? 'Let a host walk through them' : 'Walk through them again'}
    </Link>
  )
  if (scan === null)
    return (
      <p className="sentence">
        <b>Nobody has looked through its files yet.</b> {again}
      </p>
    )
  const { files, bytes, ages, misnamed } = scan.report
  const old = ages.at(-1)
  return (
    <>
      <p className="sentence">
        <b>
          {countAtStart(files, 'file holds', 'files hold')} {formatBytes(BigInt(Math.round(bytes)))}.
        </b>{' '}
        {old !== undefined && old.files > 0 && (
          <>{formatBytes(BigInt(Math.round(old.bytes)))} of it were not written for three years. </>
        )}
        {misnamed.files > 0 && (
          <Link className="textlink" href="?slice=misnamed" scroll={false}>
            {countAtStart(misnamed.files, 'is named', 'are named')} as another kind than{' '}
            {misnamed.files === 1 ? 'it is' : 'they are'}.
          </Link>
        )}
      </p>
      <p className="mt-0 text-second">
        As {scan.hostName} has found them on <Moment at={scan.at} />, looking as {scan.seenAs} ·{' '}
        <Link className="textlink" href={`/provision/shares/${share.id}`}>
          the share and its rights
        </Link>{' '}
        · {again}
      </p>
    </>
  )
}
