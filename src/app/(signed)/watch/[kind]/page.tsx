import { KindPage } from '@/app/(signed)/KindPage'
import { watchParts } from '../parts'

export const metadata = { title: 'Watch' }

export default async function Page({
  params,
  searchParams,
}: {
  readonly params: Promise<{ readonly kind: string }>
  readonly searchParams: Promise<Readonly<Record<string, string | undefined>>>
}) {
  return <KindPage place={`/watch/${(await params).kind}`} parts={watchParts} searchParams={searchParams} />
}
