import { useState } from 'react'
import { ask } from '../../api'
import { TextField } from '../../parts/TextField'
import { PasswordRules } from './CredentialsForm'
import { passwordRules } from './passwordRules'
import { useSending } from './useSending'

/** Changes the password of whoever is signed in. */
export function OwnPassword({ name }: { readonly name: string }) {
  const { send, told } = useSending()
  const blank = { current: '', wanted: '', again: '' }
  const [given, setGiven] = useState(blank)
  const [isChanged, setChanged] = useState(false)
  const rules = [
    ...passwordRules(given.wanted, name),
    { words: 'Is the same in both fields', holds: given.wanted !== '' && given.wanted === given.again },
  ]
  const field = (key: keyof typeof blank, label: string, autoComplete: string) => (
    <TextField
      label={label}
      type="password"
      value={given[key]}
      maxLength={200}
      autoComplete={autoComplete}
      onChange={value => setGiven(was => ({ ...was, [key]: value }))}
    />
  )
  return (
    <section aria-label="Your password">
      <h3 id="password">
        Your password <span>changing it ends your other sessions</span>
      </h3>
      <form
        className="max-w-[380px]"
        onSubmit={event => {
          event.preventDefault()
          void send(
            ask('PUT', '/password', { current: given.current, wanted: given.wanted }).then(answer =>
              answer.ok ? { ok: true as const, value: true } : answer,
            ),
          ).then(done => {
            setChanged(done === true)
            if (done === true) setGiven(blank)
          })
        }}
      >
        {field('current', 'Present password', 'current-password')}
        {field('wanted', 'New password', 'new-password')}
        {field('again', 'New password again', 'new-password')}
        {given.wanted !== '' && <PasswordRules rules={rules} />}
        {told}
        {isChanged && <div className="advice">Your password is changed.</div>}
        <button
          type="submit"
          className="button quiet mt-2"
          disabled={given.current === '' || rules.some(rule => !rule.holds)}
        >
          Change it
        </button>
      </form>
    </section>
  )
}
