import { useState } from 'react'
import { ask } from '../../api'
import { TextField } from '../../parts/TextField'
import { useEntries } from '../../parts/useEntries'
import { PasswordRules } from './PasswordRules'
import { passwordRules, sameRule } from '@/core/access'

const fields = [
  ['current', 'Present password', 'current-password'],
  ['wanted', 'New password', 'new-password'],
  ['again', 'New password again', 'new-password'],
] as const

/** Changes the password of whoever is signed in. */
export function OwnPassword({ name }: { readonly name: string }) {
  const [isChanged, setChanged] = useState(false)
  const { given, entry, submit, told, isBusy } = useEntries({
    start: { current: '', wanted: '', again: '' },
    send: ({ current, wanted }) => {
      setChanged(false)
      return ask('PUT', '/password', { current, wanted })
    },
    sent: (_, clear) => {
      setChanged(true)
      clear()
    },
  })
  const rules = [...passwordRules(given.wanted, name), sameRule(given.wanted, given.again)]
  return (
    <section aria-label="Your password">
      <Head />
      <form className="max-w-[380px]" onSubmit={submit}>
        {fields.map(([key, label, autoComplete]) => (
          <TextField
            key={key}
            label={label}
            type="password"
            maxLength={200}
            autoComplete={autoComplete}
            {...entry(key)}
          />
        ))}
        {given.wanted !== '' && <PasswordRules rules={rules} />}
        {told}
        {isChanged && <div className="advice">Your password is changed.</div>}
        <ChangeButton isBusy={isBusy} given={given} rules={rules} />
      </form>
    </section>
  )
}

const Head = () => (
  <h3 id="password">
    Your password <span>changing it ends your other sessions</span>
  </h3>
)

interface ChangeButtonProps {
  readonly isBusy: boolean
  readonly given: { current: string; wanted: string; again: string }
  readonly rules: { readonly words: string; readonly holds: boolean }[]
}

const ChangeButton = ({ isBusy, given, rules }: ChangeButtonProps) => (
  <button
    type="submit"
    className="button quiet mt-2"
    disabled={isBusy || given.current === '' || rules.some(rule => !rule.holds)}
  >
    Change it
  </button>
)
