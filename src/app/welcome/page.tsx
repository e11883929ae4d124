import { redirect } from 'next/navigation'
import { atTheDoor } from '@/app/server/guard'
import { onlyTexts } from '@/app/server/onlyTexts'
import { WelcomeForm } from '@/ui/tend/access'

export const dynamic = 'force-dynamic'

export default async function Page({ searchParams }: { readonly searchParams: Promise<{ readonly code?: string }> }) {
  if (!(await atTheDoor()).isEstateNew) redirect('/sign-in')
  const { code = '' } = await onlyTexts(searchParams)
  return (
    <main className="mx-auto max-w-[420px] px-5 pt-[12vh]">
      <h1>Wendrel</h1>
      <p className="sentence">
        Nobody has an account here yet. Choose the name and the password of the first administrator.
      </p>
      <WelcomeForm code={String(code).slice(0, 40)} />
    </main>
  )
}
