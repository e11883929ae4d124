import { redirect } from 'next/navigation'
import type { ReactNode } from 'react'
import { context } from '@/app/server/context'
import { signedIn } from '@/app/server/session'
import { administratorCount } from '@/records/access'
import { runningCount } from '@/records/changes'
import { estateClock } from '@/records/inventory'
import { Live, WorkLine } from '@/ui/frame'

export const dynamic = 'force-dynamic'

export default async function Layout({ children }: { readonly children: ReactNode }) {
  const scope = { database: context().database }
  const who = await signedIn()
  if (who === undefined) {
    if ((await administratorCount(scope)) === 0) redirect('/welcome')
    redirect('/sign-in')
  }
  return (
    <div className="flex h-dvh flex-col">
      <WorkLine running={await runningCount(scope)} clock={await estateClock(scope)} administrator={who.name} />
      {children}
      <Live />
    </div>
  )
}
