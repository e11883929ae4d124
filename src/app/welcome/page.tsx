import { redirect } from 'next/navigation'
import { context } from '@/app/server/context'
import { administratorCount } from '@/records/access'
import { WelcomeForm } from '@/ui/access'

export const dynamic = 'force-dynamic'

export default async function Page({ searchParams }: { readonly searchParams: Promise<{ readonly code?: string }> }) {
  if ((await administratorCount({ database: context().database })) > 0) redirect('/sign-in')
  const { code = '' } = await searchParams
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
