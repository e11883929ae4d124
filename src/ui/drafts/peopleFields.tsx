import { X } from 'lucide-react'
import { useState } from 'react'
import { everybody, type GrantedRight, type ShareGrant } from '@/core/access'
import { ask } from '../api'
import { PersonChoice, useSomebody } from '../people'
import { Select } from '../parts/Select'
import { Trouble } from '../parts/State'
import { TextField } from '../parts/TextField'
import { ServerLists } from '../table'

const rights: readonly { readonly value: GrantedRight; readonly words: string }[] = [
  { value: 'read', words: 'read' },
  { value: 'change', words: 'read, write' },
  { value: 'full', words: 'all, and set rights' },
  { value: 'none', words: 'refused' },
]

interface GrantsFieldProps {
  readonly label: string
  readonly value: readonly ShareGrant[]
  readonly error: string | undefined
  readonly onChange: (grants: readonly ShareGrant[]) => void
}

/** Who may do what over SMB, one below another: people and groups of the directory, or everybody who signs in. */
export function GrantsField({ label, value: grants, error, onChange }: GrantsFieldProps) {
  const add = (who: string, name: string) =>
    grants.some(each => each.who === who) ? undefined : onChange([...grants, { who, name, right: 'change' }])
  return (
    <fieldset className="mb-3 border-0 p-0">
      <legend className="label">{label}</legend>
      <ul className="m-0 list-none p-0">
        {grants.map((grant, index) => (
          <GrantLine
            key={grant.who}
            grant={grant}
            set={right => onChange(grants.map((each, at) => (at === index ? { ...each, right } : each)))}
            remove={() => onChange(grants.filter((_, at) => at !== index))}
          />
        ))}
      </ul>
      <ServerLists>
        <PersonChoice
          label="Grant somebody"
          hint="A part of the name of a person or a group."
          chosen=""
          hasGroups
          onChoose={found => (found === undefined ? undefined : add(found.durableId, found.name))}
        />
      </ServerLists>
      {!grants.some(({ who }) => who === everybody) && (
        <button type="button" className="button quiet" onClick={() => add(everybody, 'everybody')}>
          Grant everybody who signs in
        </button>
      )}
      {error !== undefined && <Trouble>{error}</Trouble>}
    </fieldset>
  )
}

interface GrantLineProps {
  readonly grant: ShareGrant
  readonly set: (right: GrantedRight) => void
  readonly remove: () => void
}

const GrantLine = ({ grant, set, remove }: GrantLineProps) => (
  <li className="mb-1 grid grid-cols-[minmax(0,1fr)_150px_16px] items-center gap-2">
    <span className="truncate" title={grant.name}>
      {grant.who === everybody ? 'Everybody who signs in' : grant.name}
    </span>
    <Select aria-label={`Right of ${grant.name}`} value={grant.right} options={rights} onChange={set} />
    <button
      type="button"
      className="border-0 bg-transparent p-0 text-second"
      aria-label={`Take the grant of ${grant.name} away`}
      onClick={remove}
    >
      <X aria-hidden size={14} />
    </button>
  </li>
)

interface PersonFieldProps {
  readonly label: string
  readonly hint: string | undefined
  readonly error: string | undefined
  /** The id of who is chosen; empty while nobody is. */
  readonly value: string
  readonly onChange: (id: string) => void
}

/** One person of a directory. */
export const PersonField = (props: PersonFieldProps) => (
  <ServerLists>
    <PersonById {...props} />
  </ServerLists>
)

function PersonById({ label, hint, error, value, onChange }: PersonFieldProps) {
  const somebody = useSomebody(value)
  return (
    <PersonChoice
      label={label}
      {...(hint === undefined ? {} : { hint })}
      error={error}
      chosen={value === '' ? '' : (somebody?.person.name ?? '…')}
      onChoose={found => onChange(found?.id ?? '')}
    />
  )
}

interface Looked {
  readonly fingerprint: string
  readonly certificateTrouble: string | null
  readonly baseDns: readonly string[]
  readonly maker: string | null
}

interface CertificateFieldProps extends Omit<PersonFieldProps, 'onChange'> {
  readonly address: string
  /** @param baseDn the first that it has */
  readonly onAccept: (fingerprint: string, baseDn: string | undefined) => void
  readonly onChange: (fingerprint: string) => void
}

/** The certificate that is accepted at an address: seen before anything is told there, and accepted by a click. */
export function CertificateField({ label, hint, error, value, address, onAccept, onChange }: CertificateFieldProps) {
  const [looked, setLooked] = useState<Looked>()
  const [trouble, setTrouble] = useState<string>()
  const [isAsking, setAsking] = useState(false)
  const look = async () => {
    setAsking(true)
    const answer = await ask<Looked>('POST', '/directory-looks', { address })
    setAsking(false)
    setTrouble(answer.ok ? undefined : `${answer.refusal.what} ${answer.refusal.why}`)
    setLooked(answer.ok ? answer.value : undefined)
  }
  return (
    <>
      <TextField
        label={label}
        hint={hint}
        error={trouble ?? error}
        value={value}
        isMono
        maxLength={100}
        onChange={onChange}
      />
      <p className="mt-0 mb-3">
        <button
          type="button"
          className="button quiet"
          disabled={address.trim() === '' || isAsking}
          onClick={() => void look()}
        >
          {isAsking ? 'Asking…' : 'See who answers there'}
        </button>
      </p>
      {looked !== undefined && looked.fingerprint !== value && <Answering looked={looked} onAccept={onAccept} />}
    </>
  )
}

/** Who answers at the address, to be accepted. */
const Answering = ({ looked, onAccept }: Pick<CertificateFieldProps, 'onAccept'> & { readonly looked: Looked }) => (
  <div className="mb-3 border-l-2 border-action pl-3" role="status">
    <p className="mt-0 mb-1">
      {looked.maker ?? 'A directory'} answers,{' '}
      {looked.certificateTrouble === null
        ? 'with a certificate that a known authority has signed.'
        : 'with a certificate that no known authority has signed: compare it with the one on its console.'}
    </p>
    <p className="mono m-0 text-sm">{looked.fingerprint.replaceAll(':', ':\u200b')}</p>
    <p className="mt-1 mb-0">
      <button
        type="button"
        className="textlink border-0 bg-transparent p-0"
        onClick={() => onAccept(looked.fingerprint, looked.baseDns[0])}
      >
        Accept exactly this one
      </button>
    </p>
  </div>
)
