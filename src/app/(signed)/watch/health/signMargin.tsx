import { reader } from '@/app/server/guard'
import { keptDraft } from '@/app/server/keptDraft'
import { signExceptionIntent } from '@/core/intents'
import { pools, systems, todayNow } from '@/records/queries'
import { IntentForm, KeyedDraft } from '@/ui/drafts'

interface SignMarginProps {
  /** Of what Today says. */
  readonly findingKey: string
  readonly change: string | undefined
}

/** Lets something that Today says stand until a day, with a reason and a name; undefined where it says that no longer. */
export async function signMargin({ findingKey, change }: SignMarginProps) {
  const { scope } = await reader()
  const { open } = await todayNow(scope, await systems(scope), await pools(scope))
  const found = open.find(({ key }) => key === findingKey)
  if (found === undefined) return undefined
  return (
    <KeyedDraft id={change} of={found.key}>
      <IntentForm
        kind={signExceptionIntent.kind}
        title={`Let stand: ${found.what}`}
        begin={{ findingKey: found.key, findingTitle: found.what, gravity: found.gravity }}
        kept={await keptDraft(change, signExceptionIntent.kind)}
      />
    </KeyedDraft>
  )
}
