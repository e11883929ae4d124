import { redirect } from 'next/navigation'
import { context } from '@/app/server/context'
import { rowSystemIds } from '@/records/queries'

/** Leads to the first row of nodes that could become a cluster, or to the systems where there is none. */
export default async function Page() {
  const [first] = await rowSystemIds({ database: context().database })
  redirect(first === undefined ? '/build' : `/build/systems/${first}?draft=form-cluster`)
}
