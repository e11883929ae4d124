import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { ask } from '../../api'
import { Ago } from '../../parts/Ago'
import { Copied } from '../../parts/Copied'
import { Refusal } from '../../parts/Refusal'
import { TextField } from '../../parts/TextField'
import { useEntries } from '../../parts/useEntries'

export interface Token {
  readonly id: string
  readonly name: string
  readonly madeAt: string
  readonly usedAt: string | null
}

export function Tokens({ tokens }: { readonly tokens: readonly Token[] }) {
  const router = useRouter()
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const withdraw = async (id: string) => {
    const answer = await ask('DELETE', `/tokens/${id}`)
    setRefusal(answer.ok ? undefined : answer.refusal)
    router.refresh()
  }
  return (
    <section aria-label="Bearer tokens">
      <h3 id="tokens">
        Your bearer tokens <span>for scripts; see /api/v1/openapi.json</span>
      </h3>
      {tokens.length === 0 && <div className="text-second">None yet.</div>}
      <table className="plain">
        <tbody>
          {tokens.map(({ id, name, usedAt }) => (
            <TokenLine key={id} id={id} name={name} usedAt={usedAt} withdraw={withdraw} />
          ))}
        </tbody>
      </table>
      {refusal !== undefined && <Refusal refusal={refusal} />}
      <MakeToken />
    </section>
  )
}

function MakeToken() {
  const router = useRouter()
  const [made, setMade] = useState<string>()
  const { given, entry, submit, told, isBusy } = useEntries({
    start: { name: '' },
    send: body => ask<{ token: string }>('POST', '/tokens', body),
    sent: ({ token }, clear) => {
      setMade(token)
      clear()
      router.refresh()
    },
  })
  return (
    <>
      {made !== undefined && (
        <div className="advice">
          Copy it now; it is not shown again: <Copied text={made} />
        </div>
      )}
      <form className="mt-3 flex items-end gap-2" onSubmit={submit}>
        <div className="min-w-0 flex-1">
          <TextField label="What it is for" maxLength={80} {...entry('name')} />
        </div>
        <button type="submit" className="button quiet mb-[9px]" disabled={isBusy || given.name.trim() === ''}>
          Make a token
        </button>
      </form>
      {told}
    </>
  )
}

interface TokenLineProps {
  readonly id: string
  readonly name: string
  readonly usedAt: string | null
  readonly withdraw: (id: string) => Promise<void>
}

const TokenLine = ({ id, name, usedAt, withdraw }: TokenLineProps) => (
  <tr>
    <td>{name}</td>
    <td className="text-second">
      {usedAt === null ? (
        'never used'
      ) : (
        <>
          used <Ago at={usedAt} />
        </>
      )}
    </td>
    <td className="text-right">
      <button type="button" className="button quiet py-[2px]" onClick={() => void withdraw(id)}>
        Withdraw
      </button>
    </td>
  </tr>
)
