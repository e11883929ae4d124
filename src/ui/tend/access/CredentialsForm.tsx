'use client'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { ask, ownPath } from '../../api'
import { TextField } from '../../parts/TextField'
import { Refusal } from '../../parts/Refusal'
import { State } from '../../parts/State'
import { passwordRules } from './passwordRules'

/** Choosing the first administrator's name and password, with the code that the start printed. */
export function WelcomeForm({ code }: { readonly code: string }) {
  const [given, setGiven] = useState({ code, name: '', password: '', again: '' })
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const put = (patch: Partial<typeof given>) => setGiven(was => ({ ...was, ...patch }))
  const rules = [
    ...passwordRules(given.password, given.name),
    { words: 'Is the same in both fields', holds: given.password !== '' && given.password === given.again },
  ]
  const isReady = rules.every(rule => rule.holds) && given.name !== '' && given.code !== ''
  const send = async () => {
    const answer = await ask('POST', '/first-administrator', {
      code: given.code,
      name: given.name,
      password: given.password,
    })
    if (answer.ok) window.location.assign('/')
    else setRefusal(answer.refusal)
  }
  return (
    <form
      onSubmit={event => {
        event.preventDefault()
        if (isReady) void send()
      }}
    >
      {code === '' && (
        <TextField
          label="Code"
          hint="Printed in the terminal in which Wendrel was started."
          value={given.code}
          maxLength={40}
          isMono
          onChange={value => put({ code: value })}
        />
      )}
      <TextField
        label="Your name"
        hint="Letters, digits, . _ - @"
        value={given.name}
        maxLength={63}
        autoComplete="username"
        autoFocus
        onChange={value => put({ name: value })}
      />
      <TextField
        label="Password"
        type="password"
        value={given.password}
        maxLength={200}
        autoComplete="new-password"
        onChange={value => put({ password: value })}
      />
      <TextField
        label="Password again"
        type="password"
        value={given.again}
        maxLength={200}
        autoComplete="new-password"
        onChange={value => put({ again: value })}
      />
      <PasswordRules rules={rules} />
      {refusal !== undefined && <Refusal refusal={refusal} />}
      <button type="submit" className="button mt-3" disabled={!isReady}>
        Begin
      </button>
    </form>
  )
}

export function SignInForm() {
  const [name, setName] = useState('')
  const [password, setPassword] = useState('')
  const [refusal, setRefusal] = useState<CodedRefusal>()
  const [isBusy, setBusy] = useState(false)
  const send = async () => {
    setBusy(true)
    const answer = await ask('POST', '/session', { name, password })
    setBusy(false)
    if (!answer.ok) return setRefusal(answer.refusal)
    window.location.assign(ownPath(new URLSearchParams(window.location.search).get('to')))
  }
  return (
    <form
      onSubmit={event => {
        event.preventDefault()
        void send()
      }}
    >
      <TextField
        label="Your name"
        value={name}
        maxLength={63}
        autoComplete="username"
        autoFocus
        required
        onChange={setName}
      />
      <TextField
        label="Password"
        type="password"
        value={password}
        maxLength={500}
        autoComplete="current-password"
        required
        onChange={setPassword}
      />
      {refusal !== undefined && <Refusal refusal={refusal} />}
      <button type="submit" className="button mt-2" disabled={isBusy}>
        Sign in
      </button>
    </form>
  )
}

export function PasswordRules({
  rules,
}: {
  readonly rules: readonly { readonly words: string; readonly holds: boolean }[]
}) {
  return (
    <ul className="m-0 list-none p-0 text-sm" aria-label="Rules for the password" aria-live="polite">
      {rules.map(rule => (
        <li key={rule.words}>
          <State gravity={rule.holds ? 'fine' : 'note'}>
            {rule.words}
            <span className="sr-only">{rule.holds ? ', met' : ', not met yet'}</span>
          </State>
        </li>
      ))}
    </ul>
  )
}
