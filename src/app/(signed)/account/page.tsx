import { redirect } from 'next/navigation'
import { context } from '@/app/server/context'
import { signedIn } from '@/app/server/session'
import { settings } from '@/records'
import { administrators, tokensOf } from '@/records/access'
import { Account } from '@/ui/access'
import { Page as Frame, Title } from '@/ui/frame'

export const metadata = { title: 'Account' }

export default async function Page() {
  const who = await signedIn()
  if (who === undefined) redirect('/sign-in')
  const scope = { database: context().database }
  const [all, tokens, set] = await Promise.all([administrators(scope), tokensOf(scope, who.id), settings(scope)])
  return (
    <Frame>
      <Title words="Account" />
      <p className="sentence">
        <b>You are {who.name}.</b>{' '}
        {all.length === 1 ? 'You are the only administrator.' : `One of ${all.length} administrators.`}
      </p>
      <Account own={who} administrators={all} tokens={tokens} settings={set} />
    </Frame>
  )
}
