'use client'
import { useState } from 'react'
import type { EstateSettings } from '@/core/estate'
import { ask } from '../../api'
import { ThemeChoice } from './ThemeChoice'
import { Ago } from '../../parts/Ago'
import { Copied } from '../../parts/Copied'
import { TextField } from '../../parts/TextField'
import { PasswordRules } from './CredentialsForm'
import { OwnPassword } from './OwnPassword'
import { passwordRules } from './passwordRules'
import { useSending } from './useSending'

interface AccountProps {
  readonly own: { readonly id: string; readonly name: string }
  readonly administrators: readonly { readonly id: string; readonly name: string; readonly madeAt: string }[]
  readonly tokens: readonly {
    readonly id: string
    readonly name: string
    readonly madeAt: string
    readonly usedAt: string | null
  }[]
  readonly settings: EstateSettings
}

/** Administrators, the own bearer tokens, and what is set for the estate. */
export function Account({ own, administrators, tokens, settings }: AccountProps) {
  return (
    <div className="grid grid-cols-2 gap-x-10 max-lg:grid-cols-1">
      <div>
        <OwnPassword name={own.name} />
        <Administrators own={own} administrators={administrators} />
      </div>
      <div>
        <Tokens tokens={tokens} />
        <Settings settings={settings} />
        <h3>This browser</h3>
        <ThemeChoice />
        <button
          type="button"
          className="button quiet"
          onClick={() => void ask('DELETE', '/session').then(() => window.location.assign('/sign-in'))}
        >
          Sign out
        </button>
      </div>
    </div>
  )
}

function Administrators({ own, administrators }: Pick<AccountProps, 'own' | 'administrators'>) {
  const { send, told } = useSending()
  const [name, setName] = useState('')
  const [password, setPassword] = useState('')
  const rules = passwordRules(password, name)
  return (
    <section aria-label="Administrators">
      <h3 id="administrators">
        Administrators <span>all may do everything</span>
      </h3>
      <table className="plain">
        <tbody>
          {administrators.map(each => (
            <tr key={each.id}>
              <td>
                <b className="font-semibold">{each.name}</b>
                {each.id === own.id ? ' (you)' : ''}
              </td>
              <td className="text-second">
                since <Ago at={each.madeAt} />
              </td>
              <td className="text-right">
                <button
                  type="button"
                  className="button quiet py-[2px]"
                  disabled={administrators.length === 1}
                  title={
                    administrators.length === 1
                      ? 'The last administrator stays'
                      : `Ends all sessions of ${each.name} at once`
                  }
                  onClick={() => void send(ask('DELETE', `/administrators/${each.id}`))}
                >
                  Remove
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <form
        className="mt-4 max-w-[380px]"
        onSubmit={event => {
          event.preventDefault()
          void send(ask('POST', '/administrators', { name, password })).then(added => {
            if (added === undefined) return
            setName('')
            setPassword('')
          })
        }}
      >
        <TextField
          label="Add an administrator"
          hint="Letters, digits, . _ - @"
          value={name}
          maxLength={63}
          onChange={setName}
        />
        <TextField
          label="First password"
          type="password"
          value={password}
          maxLength={200}
          autoComplete="new-password"
          onChange={setPassword}
        />
        {password !== '' && <PasswordRules rules={rules} />}
        {told}
        <button type="submit" className="button quiet mt-2" disabled={name === '' || rules.some(rule => !rule.holds)}>
          Add
        </button>
      </form>
    </section>
  )
}

function Tokens({ tokens }: Pick<AccountProps, 'tokens'>) {
  const { send, told } = useSending()
  const [name, setName] = useState('')
  const [made, setMade] = useState<string>()
  return (
    <section aria-label="Bearer tokens">
      <h3 id="tokens">
        Your bearer tokens <span>for scripts; see /api/v1/openapi.json</span>
      </h3>
      {tokens.length === 0 && <div className="text-second">None yet.</div>}
      <table className="plain">
        <tbody>
          {tokens.map(token => (
            <tr key={token.id}>
              <td>{token.name}</td>
              <td className="text-second">
                {token.usedAt === null ? (
                  'never used'
                ) : (
                  <>
                    used <Ago at={token.usedAt} />
                  </>
                )}
              </td>
              <td className="text-right">
                <button
                  type="button"
                  className="button quiet py-[2px]"
                  onClick={() => void send(ask('DELETE', `/tokens/${token.id}`))}
                >
                  Withdraw
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {made !== undefined && (
        <div className="advice">
          Copy it now; it is not shown again: <Copied text={made} />
        </div>
      )}
      <form
        className="mt-3 flex items-end gap-2"
        onSubmit={event => {
          event.preventDefault()
          void send(ask<{ token: string }>('POST', '/tokens', { name })).then(answer => {
            if (answer === undefined) return
            setMade(answer.token)
            setName('')
          })
        }}
      >
        <label className="min-w-0 flex-1">
          <span className="label">What it is for</span>
          <input className="field" value={name} onChange={event => setName(event.target.value)} maxLength={80} />
        </label>
        <button type="submit" className="button quiet" disabled={name.trim() === ''}>
          Make a token
        </button>
      </form>
      {told}
    </section>
  )
}

function Settings({ settings }: Pick<AccountProps, 'settings'>) {
  const { send, told } = useSending()
  const [volumeNaming, setNaming] = useState(settings.volumeNaming)
  const [holdingDays, setDays] = useState(settings.holdingDays)
  const [nameServer, setNameServer] = useState(settings.nameServer)
  const [addresses, setAddresses] = useState(settings.addresses)
  return (
    <section aria-label="Settings of the estate">
      <h3 id="settings">Settings of the estate</h3>
      <form
        onSubmit={event => {
          event.preventDefault()
          void send(ask('PUT', '/settings', { volumeNaming, holdingDays, nameServer, addresses }))
        }}
      >
        <TextField
          label="Naming pattern of volumes"
          hint="{group}, {purpose} and {nn}, the next free number."
          value={volumeNaming}
          maxLength={120}
          isMono
          onChange={setNaming}
        />
        <TextField
          label="Days in holding"
          hint="How long a removed volume can be brought back; 1 to 365."
          type="number"
          min={1}
          max={365}
          value={holdingDays}
          isMono
          className="w-[100px]"
          onChange={value => setDays(Number(value))}
        />
        <TextField
          label="Name server"
          hint="host:port, such as 10.20.0.53:53; empty asks none."
          value={nameServer}
          maxLength={255}
          isMono
          onChange={setNameServer}
        />
        <TextField
          label="Addresses that may be registered besides"
          hint="Networks such as 127.0.0.0/8, for systems on addresses that are barred by themselves: those of this server, of its link, and groups."
          value={addresses}
          maxLength={2000}
          isMono
          onChange={setAddresses}
        />
        {told}
        <button type="submit" className="button quiet">
          Keep
        </button>
      </form>
    </section>
  )
}
