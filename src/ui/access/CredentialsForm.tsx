'use client'
import { useState } from 'react'
import type { CodedRefusal } from '@/core/errors'
import { ask, ownPath } from '../api'
import { Field } from '../parts/Field'
import { Refusal } from '../parts/Refusal'
import { State } from '../parts/State'
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
        <Field label="Code" hint="Printed in the terminal in which Wendrel was started.">
          {props => (
            <input
              {...props}
              className="field mono"
              value={given.code}
              onChange={event => put({ code: event.target.value })}
              maxLength={40}
              autoComplete="off"
            />
          )}
        </Field>
      )}
      <Field label="Your name" hint="Letters, digits, . _ - @">
        {props => (
          <input
            {...props}
            className="field"
            value={given.name}
            onChange={event => put({ name: event.target.value })}
            maxLength={63}
            autoComplete="username"
            autoFocus
          />
        )}
      </Field>
      <Field label="Password">
        {props => (
          <input
            {...props}
            type="password"
            className="field"
            value={given.password}
            onChange={event => put({ password: event.target.value })}
            maxLength={200}
            autoComplete="new-password"
          />
        )}
      </Field>
      <Field label="Password again">
        {props => (
          <input
            {...props}
            type="password"
            className="field"
            value={given.again}
            onChange={event => put({ again: event.target.value })}
            maxLength={200}
            autoComplete="new-password"
          />
        )}
      </Field>
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
      <Field label="Your name">
        {props => (
          <input
            {...props}
            className="field"
            value={name}
            onChange={event => setName(event.target.value)}
            maxLength={63}
            autoComplete="username"
            autoFocus
            required
          />
        )}
      </Field>
      <Field label="Password">
        {props => (
          <input
            {...props}
            type="password"
            className="field"
            value={password}
            onChange={event => setPassword(event.target.value)}
            maxLength={500}
            autoComplete="current-password"
            required
          />
        )}
      </Field>
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
