import { redirect } from 'next/navigation'
import { context } from '@/app/server/context'
import { signedIn } from '@/app/server/session'
import { administratorCount } from '@/records/access'
import { SignInForm } from '@/ui/access'

export const dynamic = 'force-dynamic'

export default async function Page() {
  if ((await administratorCount({ database: context().database })) === 0) redirect('/welcome')
  if ((await signedIn()) !== undefined) redirect('/')
  return (
    <main className="mx-auto max-w-[380px] px-5 pt-[14vh]">
      <h1>Wendrel</h1>
      <p className="sentence">Every change is planned, checked, forecast, carried out and proven.</p>
      <SignInForm />
    </main>
  )
}
