import { redirect } from 'next/navigation'
import { reader } from '@/app/server/guard'
import { rowSystemIds } from '@/records/queries'

/** Leads to the first row of nodes that could become a cluster, or to the systems where there is none. */
export default async function Page() {
  const [first] = await rowSystemIds((await reader()).scope)
  redirect(first === undefined ? '/build' : `/build/systems/${first}?draft=form-cluster`)
}
