import { KindPage } from '@/app/(signed)/KindPage'
import { provisionParts } from '../parts'

export const metadata = { title: 'Provision' }

export default async function Page({
  params,
  searchParams,
}: {
  readonly params: Promise<{ readonly kind: string }>
  readonly searchParams: Promise<Readonly<Record<string, string | undefined>>>
}) {
  return <KindPage place={`/provision/${(await params).kind}`} parts={provisionParts} searchParams={searchParams} />
}
