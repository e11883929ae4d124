import { plain } from '@/app/(signed)/plain'
import { reader } from '@/app/server/guard'
import { grantPage } from '@/records/queries'
import { WhoCanMatrix } from '@/ui/grant'

export const metadata = { title: 'Grant' }

/** Who can do what with which share, from where, and why. */
export default async function Page() {
  const { scope } = await reader()
  return <WhoCanMatrix page={plain(await grantPage(scope))} />
}
