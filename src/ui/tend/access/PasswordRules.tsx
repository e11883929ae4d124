import { State } from '../../parts/State'
import type { passwordRules } from '@/core/access'

/** The rules for a password, each with whether it is met. */
export const PasswordRules = ({ rules }: { readonly rules: ReturnType<typeof passwordRules> }) => (
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
