'use client'
import { Plus } from 'lucide-react'
import { newRule, ruleReach, ruleTroubles, type ExportRule, type RuleReach } from '@/core/access'
import { countWords } from '@/core/units'
import { Select } from '../parts/Select'
import { Trouble } from '../parts/State'
import { LineActs, raised } from './LineActs'

interface ExportRulesFieldProps {
  readonly label: string
  readonly value: readonly ExportRule[]
  readonly error: string | undefined
  readonly onChange: (rules: readonly ExportRule[]) => void
}

const accesses = [
  { value: 'rw', words: 'read, write' },
  { value: 'ro', words: 'read only' },
  { value: 'none', words: 'nothing' },
] as const
const squashes = [
  { value: 'root', words: 'root is nobody' },
  { value: 'all', words: 'all are nobody' },
  { value: 'none', words: 'root is root' },
] as const
const signIns = [
  { value: 'sys', words: 'sys' },
  { value: 'sys krb5 krb5i krb5p', words: 'sys or Kerberos' },
  { value: 'krb5 krb5i krb5p', words: 'Kerberos' },
  { value: 'krb5p', words: 'Kerberos, sealed' },
] as const

/** Rules for hosts, one below another, each with what it decides and what is wrong with it as it is typed. */
export function ExportRulesField({ label, value: rules, error, onChange }: ExportRulesFieldProps) {
  const reach = ruleReach(rules)
  const troubles = ruleTroubles(rules, reach)
  const set = (index: number, change: Partial<ExportRule>) =>
    onChange(rules.map((rule, at) => (at === index ? { ...rule, ...change } : rule)))
  return (
    <fieldset className="mb-3 border-0 p-0">
      <legend className="label">{label}</legend>
      <ol className="m-0 list-none p-0">
        {rules.map((rule, index) => (
          <RuleLine
            key={index}
            index={index}
            rule={rule}
            reach={reach[index]}
            troubles={troubles.filter(each => each.index === index)}
            set={change => set(index, change)}
            remove={() => onChange(rules.toSpliced(index, 1))}
            raise={index === 0 ? undefined : () => onChange(raised(rules, index))}
          />
        ))}
      </ol>
      <button type="button" className="button quiet" onClick={() => onChange([...rules, { ...newRule, access: 'rw' }])}>
        <Plus aria-hidden size={13} /> Add a rule
      </button>
      {error !== undefined && <Trouble>{error}</Trouble>}
    </fieldset>
  )
}

interface RuleLineProps {
  readonly index: number
  readonly rule: ExportRule
  readonly reach: RuleReach | undefined
  readonly troubles: ReturnType<typeof ruleTroubles>
  readonly set: (change: Partial<ExportRule>) => void
  readonly remove: () => void
  readonly raise: (() => void) | undefined
}

function RuleLine({ index, rule, reach, troubles, set, remove, raise }: RuleLineProps) {
  const number = index + 1
  const hasClient = rule.client.trim() !== ''
  return (
    <li className="mb-2 border-b border-rule-fine pb-2">
      <div className="flex items-center gap-2">
        <span className="mono w-4 text-right text-second">{number}</span>
        <input
          className="field mono min-w-0 flex-1"
          aria-label={`Host or subnet of rule ${number}`}
          aria-invalid={hasClient && troubles.some(({ level }) => level === 'must')}
          placeholder="10.60.40.0/24, host or *"
          value={rule.client}
          maxLength={255}
          autoComplete="off"
          spellCheck={false}
          onChange={event => set({ client: event.target.value })}
        />
        <LineActs line={`rule ${number}`} remove={remove} raise={raise} />
      </div>
      <RuleChoices {...{ number, rule, set }} />
      {hasClient && (
        <div className="mt-1 pl-6 text-sm text-second">
          {troubles.length === 0 ? decidesWords(reach) : troubles.map(({ why }) => <Trouble key={why}>{why}</Trouble>)}
        </div>
      )}
    </li>
  )
}

const RuleChoices = ({ number, rule, set }: Pick<RuleLineProps, 'rule' | 'set'> & { readonly number: number }) => (
  <div className="mt-1 grid grid-cols-3 gap-[6px] pl-6">
    <Select
      aria-label={`Access of rule ${number}`}
      value={rule.access}
      options={accesses}
      onChange={access => set({ access })}
    />
    <Select
      aria-label={`Squash of rule ${number}`}
      value={rule.squash}
      options={squashes}
      onChange={squash => set({ squash })}
    />
    <Select
      aria-label={`Sign-in of rule ${number}`}
      value={rule.flavours.join(' ')}
      options={signIns as readonly { readonly value: string; readonly words: string }[]}
      onChange={words => set({ flavours: words.split(' ') as unknown as ExportRule['flavours'] })}
    />
  </div>
)

const decidesWords = (reach: RuleReach | undefined) =>
  reach === undefined || reach.addresses === null
    ? 'Decides for every other host.'
    : `Decides for ${reach.addresses > 1_000_000n ? 'more than a million addresses' : countWords(Number(reach.addresses), 'address', 'addresses')}.`
