'use client'
import { ask, ownPath } from '../../api'
import { TextField } from '../../parts/TextField'
import { useEntries } from '../../parts/useEntries'
import { PasswordRules } from './PasswordRules'
import { passwordRules, sameRule } from '@/core/access'

/** Choosing the first administrator's name and password, with the code that the start printed. */
export function WelcomeForm({ code }: { readonly code: string }) {
  const { given, entry, submit, told, isBusy } = useEntries({
    start: { code, name: '', password: '', again: '' },
    send: ({ code, name, password }) => ask('POST', '/first-administrator', { code, name, password }),
    sent: () => window.location.assign('/'),
  })
  const rules = [...passwordRules(given.password, given.name), sameRule(given.password, given.again)]
  const isReady = rules.every(rule => rule.holds) && given.name !== '' && given.code !== ''
  return (
    <form onSubmit={submit}>
      {code === '' && (
        <TextField
          label="Code"
          hint="Printed in the terminal in which Wendrel was started."
          maxLength={40}
          isMono
          {...entry('code')}
        />
      )}
      <NameEntry {...entry('name')} />
      <TextField label="Password" type="password" maxLength={200} autoComplete="new-password" {...entry('password')} />
      <TextField
        label="Password again"
        type="password"
        maxLength={200}
        autoComplete="new-password"
        {...entry('again')}
      />
      <PasswordRules rules={rules} />
      {told}
      <button type="submit" className="button mt-3" disabled={!isReady || isBusy}>
        Begin
      </button>
    </form>
  )
}

export function SignInForm() {
  const { entry, submit, told, isBusy } = useEntries({
    start: { name: '', password: '' },
    send: body => ask('POST', '/session', body),
    sent: () => window.location.assign(ownPath(new URLSearchParams(window.location.search).get('to'))),
  })
  return (
    <form onSubmit={submit}>
      <TextField label="Your name" maxLength={63} autoComplete="username" autoFocus required {...entry('name')} />
      <TextField
        label="Password"
        type="password"
        maxLength={500}
        autoComplete="current-password"
        required
        {...entry('password')}
      />
      {told}
      <button type="submit" className="button mt-2" disabled={isBusy}>
        Sign in
      </button>
    </form>
  )
}

interface NameEntryProps {
  readonly value: string
  readonly onChange: (name: string) => void
}

const NameEntry = (entry: NameEntryProps) => (
  <TextField
    label="Your name"
    hint="Letters, digits, . _ - @"
    maxLength={63}
    autoComplete="username"
    autoFocus
    {...entry}
  />
)
