import { useRouter } from 'next/navigation'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { ask } from '../../api'
import { Ago } from '../../parts/Ago'
import { Refusal } from '../../parts/Refusal'
import { TextField } from '../../parts/TextField'
import { Tip } from '../../parts/Tip'
import { useEntries } from '../../parts/useEntries'
import { PasswordRules } from './PasswordRules'
import { passwordRules } from '@/core/access'

export interface Administrator {
  readonly id: string
  readonly name: string
  readonly madeAt: string
}

interface AdministratorsProps {
  /** The id of whoever looks. */
  readonly own: string
  readonly administrators: readonly Administrator[]
}

export function Administrators({ own, administrators }: AdministratorsProps) {
  const router = useRouter()
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const remove = async (id: string) => {
    const answer = await ask('DELETE', `/administrators/${id}`)
    setRefusal(answer.ok ? undefined : answer.refusal)
    router.refresh()
  }
  const isLast = administrators.length === 1
  return (
    <section aria-label="Administrators">
      <h3 id="administrators">
        Administrators <span>all may do everything</span>
      </h3>
      <table className="plain">
        <tbody>
          {administrators.map(({ id, name, madeAt }) => (
            <AdministratorLine key={id} id={id} name={name} own={own} madeAt={madeAt} isLast={isLast} remove={remove} />
          ))}
        </tbody>
      </table>
      {refusal !== undefined && <Refusal refusal={refusal} />}
      <AddAdministrator />
    </section>
  )
}

function AddAdministrator() {
  const router = useRouter()
  const { given, entry, submit, told, isBusy } = useEntries({
    start: { name: '', password: '' },
    send: body => ask('POST', '/administrators', body),
    sent: (_, clear) => {
      clear()
      router.refresh()
    },
  })
  const rules = passwordRules(given.password, given.name)
  return (
    <form className="mt-4 max-w-[380px]" onSubmit={submit}>
      <TextField label="Add an administrator" hint="Letters, digits, . _ - @" maxLength={63} {...entry('name')} />
      <TextField
        label="First password"
        type="password"
        maxLength={200}
        autoComplete="new-password"
        {...entry('password')}
      />
      {given.password !== '' && <PasswordRules rules={rules} />}
      {told}
      <button
        type="submit"
        className="button quiet mt-2"
        disabled={isBusy || given.name === '' || rules.some(rule => !rule.holds)}
      >
        Add
      </button>
    </form>
  )
}

interface AdministratorLineProps {
  readonly id: string
  readonly name: string
  readonly own: string
  readonly madeAt: string
  readonly isLast: boolean
  readonly remove: (id: string) => Promise<void>
}

const AdministratorLine = ({ id, name, own, madeAt, isLast, remove }: AdministratorLineProps) => (
  <tr>
    <td>
      <b className="font-semibold">{name}</b>
      {id === own ? ' (you)' : ''}
    </td>
    <td className="text-second">
      since <Ago at={madeAt} />
    </td>
    <td className="text-right">
      <Tip words={isLast ? 'The last administrator stays' : `Ends all sessions of ${name} at once`}>
        <button type="button" className="button quiet py-[2px]" disabled={isLast} onClick={() => void remove(id)}>
          Remove
        </button>
      </Tip>
    </td>
  </tr>
)
