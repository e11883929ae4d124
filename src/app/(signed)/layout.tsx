import type { ReactNode } from 'react'
import { reader } from '@/app/server/guard'
import { runningCount } from '@/records/changes'
import { estateClock } from '@/records/inventory'
import { Hints, Live, Toasts, WorkLine } from '@/ui/frame'

export const dynamic = 'force-dynamic'

export default async function Layout({ children }: { readonly children: ReactNode }) {
  const { scope, who } = await reader()
  return (
    <div className="flex h-dvh flex-col" data-reader={who.name}>
      <WorkLine running={await runningCount(scope)} clock={await estateClock(scope)} administrator={who.name} />
      {children}
      <Live />
      <Toasts />
      <Hints />
    </div>
  )
}
