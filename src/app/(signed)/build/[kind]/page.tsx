import { KindPage } from '@/app/(signed)/KindPage'
import { buildParts } from '../parts'

export const metadata = { title: 'Build' }

export default async function Page({
  params,
  searchParams,
}: {
  readonly params: Promise<{ readonly kind: string }>
  readonly searchParams: Promise<Readonly<Record<string, string | undefined>>>
}) {
  return <KindPage place={`/build/${(await params).kind}`} parts={buildParts} searchParams={searchParams} />
}
