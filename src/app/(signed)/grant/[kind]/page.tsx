import { KindPage } from '@/app/(signed)/KindPage'
import { grantParts } from '../parts'

export const metadata = { title: 'Grant' }

export default async function Page({
  params,
  searchParams,
}: {
  readonly params: Promise<{ readonly kind: string }>
  readonly searchParams: Promise<Readonly<Record<string, string | undefined>>>
}) {
  return <KindPage place={`/grant/${(await params).kind}`} parts={grantParts} searchParams={searchParams} />
}
