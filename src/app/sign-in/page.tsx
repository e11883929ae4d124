import { redirect } from 'next/navigation'
import { atTheDoor } from '@/app/server/guard'
import { SignInForm } from '@/ui/tend/access'

export const dynamic = 'force-dynamic'

export default async function Page() {
  const { isEstateNew, isSignedIn } = await atTheDoor()
  if (isEstateNew) redirect('/welcome')
  if (isSignedIn) redirect('/')
  return (
    <main className="mx-auto max-w-[380px] px-5 pt-[14vh]">
      <h1>Wendrel</h1>
      <p className="sentence">Every change is planned, checked, forecast, carried out and proven.</p>
      <SignInForm />
    </main>
  )
}
