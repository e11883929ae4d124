import { plain } from '@/app/(signed)/plain'
import { reader } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { isUuid } from '@/core/input'
import { connectionPage } from '@/records/queries'
import { SubSections } from '@/ui/frame'
import { ConnectionSheet } from '@/ui/grant'
import { grantParts } from '../parts'

export const metadata = { title: 'Connection test' }

interface PageProps {
  readonly searchParams: Promise<Readonly<{ host?: string; share?: string; test?: string; before?: string }>>
}

/** The whole way from a host to a share as somebody, hop by hop, and what has changed since the test before. */
export default async function Page({ searchParams }: PageProps) {
  const { host = '', share = '', test, before } = await onlyTexts(searchParams)
  const { scope } = await reader()
  const page = await connectionPage(scope, isUuid(host) ? host : '', isUuid(share) ? share : '')
  return (
    <ConnectionSheet
      page={plain(page)}
      asked={{ hostId: host, shareId: share, testId: test, beforeId: before }}
      beside={<SubSections of={grantParts} />}
    />
  )
}
