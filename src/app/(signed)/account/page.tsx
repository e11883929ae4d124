import { Link } from '@/ui/parts/Link'
import { reader } from '@/app/server/guard'
import { settings } from '@/records'
import { administrators, tokensOf } from '@/records/access'
import { Account } from '@/ui/tend/access'
import { Page as Frame, Title } from '@/ui/frame'

export const metadata = { title: 'Account' }

export default async function Page() {
  const { scope, who } = await reader()
  const [all, tokens, set] = await Promise.all([administrators(scope), tokensOf(scope, who.id), settings(scope)])
  return (
    <Frame>
      <Title words="Account" />
      <p className="sentence">
        <b>You are {who.name}.</b>{' '}
        {all.length === 1 ? 'You are the only administrator.' : `One of ${all.length} administrators.`}{' '}
        <Link className="textlink" href="/account/record">
          The record of who did what
        </Link>
      </p>
      <Account own={who} administrators={all} tokens={tokens} settings={set} />
    </Frame>
  )
}
