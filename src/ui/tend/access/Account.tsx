'use client'
import type { EstateSettings } from '@/core/estate'
import { signOut } from '../../frame'
import { Administrators, type Administrator } from './Administrators'
import { OwnPassword } from './OwnPassword'
import { Settings } from './Settings'
import { ThemeChoice } from './ThemeChoice'
import { Tokens, type Token } from './Tokens'

interface AccountProps {
  readonly own: { readonly id: string; readonly name: string }
  readonly administrators: readonly Administrator[]
  readonly tokens: readonly Token[]
  readonly settings: EstateSettings
}

/** Administrators, the own bearer tokens, and what is set for the estate. */
export const Account = ({ own, administrators, tokens, settings }: AccountProps) => (
  <div className="grid grid-cols-2 gap-x-10 max-lg:grid-cols-1">
    <div>
      <OwnPassword name={own.name} />
      <Administrators own={own.id} administrators={administrators} />
    </div>
    <div>
      <Tokens tokens={tokens} />
      <Settings settings={settings} />
      <h3>This browser</h3>
      <ThemeChoice />
      <button type="button" className="button quiet" onClick={() => void signOut()}>
        Sign out
      </button>
    </div>
  </div>
)
