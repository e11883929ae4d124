import { plain } from '@/app/(signed)/plain'
import { reader } from '@/app/server/guard'
import { grantPage } from '@/records/queries'
import { SubSections } from '@/ui/frame'
import { WhoCanMatrix } from '@/ui/grant'
import { grantParts } from './parts'

export const metadata = { title: 'Grant' }

/** Who can do what with which share, from where, and why. */
export default async function Page() {
  const { scope } = await reader()
  return <WhoCanMatrix page={plain(await grantPage(scope))} beside={<SubSections of={grantParts} />} />
}
