'use client'
import { useState } from 'react'
import { movedPaths, takeOverScripts, takeOverSeconds, takeOverTrouble } from '@/core/network'
import type { FileService, Share } from '@/core/estate'
import { ask } from '../../api'
import { Copied } from '../../parts/Copied'
import { Field } from '../../parts/Field'
import { State } from '../../parts/State'
import { TextField } from '../../parts/TextField'
import { Sights } from './Sights'

interface TakeOverProps {
  readonly service: FileService
  readonly shares: readonly Share[]
  readonly hosts: readonly { readonly id: string; readonly name: string }[]
}

interface Looked {
  readonly oldName: string
  readonly addresses: readonly string[]
  readonly why: string | null
}

const isNfs = ({ protocols }: Share) => protocols.some(each => each.startsWith('NFS'))

/** An old server's name, as it is given to this service: what clients keep and what they change, the steps, the scripts and the way back. */
export function TakeOver({ service, shares, hosts }: TakeOverProps) {
  const [paths, setPaths] = useState('')
  const { oldName, setOldName, name, look, trouble, looked } = useLookUp()
  const taken =
    looked === undefined
      ? undefined
      : { oldName: name, addresses: looked.addresses, newName: service.name, account: service.joinedAs }
  const wrong = taken === undefined ? undefined : takeOverTrouble(taken)
  const moved = movedPaths(
    paths,
    name,
    shares.map(each => ({ name: each.name, path: each.path, isNfs: isNfs(each) })),
  )
  const isFound = taken !== undefined && wrong === undefined
  return (
    <>
      {isFound && (
        <p className="sentence" role="status">
          <b>
            {taken.oldName} leads to {taken.addresses.join(', ')} now.
          </b>{' '}
          After the switch it leads to {service.name}.
        </p>
      )}
      <NameToLookUp value={oldName} error={trouble ?? wrong} onChange={setOldName} look={() => void look()} />
      <PathsField value={paths} onChange={setPaths} />
      {moved.length > 0 && <Moved lines={moved} />}
      {isFound && (
        <>
          <Steps taken={taken} hasTickets={service.joinedAs !== null} />
          <Sights key={name} oldName={name} hosts={hosts} addresses={service.instances.map(({ address }) => address)} />
        </>
      )}
    </>
  )
}

interface NameToLookUpProps extends PathsFieldProps {
  readonly error: string | undefined
  readonly look: () => void
}

const NameToLookUp = ({ value, error, onChange, look }: NameToLookUpProps) => (
  <div className="grid max-w-[820px] grid-cols-[minmax(0,1fr)_auto] items-start gap-x-3">
    <TextField
      label="Name of the old server"
      hint="In full, as clients write it."
      isMono
      maxLength={253}
      value={value}
      error={error}
      onChange={onChange}
    />
    <button type="button" className="button quiet mt-[19px]" disabled={value.trim() === ''} onClick={look}>
      Look it up
    </button>
  </div>
)

interface PathsFieldProps {
  readonly value: string
  readonly onChange: (value: string) => void
}

const PathsField = ({ value, onChange }: PathsFieldProps) => (
  <Field
    label="Paths that clients use there"
    hint="A line each; behind a comma the share in which it lies now, where that is called otherwise."
  >
    {labelled => (
      <textarea
        {...labelled}
        className="field mono h-auto max-w-[820px]"
        rows={3}
        maxLength={60_000}
        value={value}
        onChange={event => onChange(event.target.value)}
      />
    )}
  </Field>
)

/** The name as it is typed, and what was found of it when it was looked up last. */
function useLookUp() {
  const [oldName, setOldName] = useState('')
  const [looked, setLooked] = useState<Looked>()
  const [trouble, setTrouble] = useState<string>()
  const name = oldName.trim().toLowerCase()
  const look = async () => {
    const answer = await ask<{ items: readonly { answers: readonly string[]; why: string | null }[] }>(
      'POST',
      '/name-lookups',
      { names: [name], addresses: [] },
    )
    setTrouble(answer.ok ? undefined : answer.refusal.why)
    const [found] = answer.ok ? answer.value.items : []
    if (answer.ok && found === undefined) setTrouble('No name server is set for the estate; one is set under Account.')
    setLooked(found === undefined ? undefined : { oldName: name, addresses: found.answers, why: found.why })
  }
  return { oldName, setOldName, name, look, trouble, looked: looked?.oldName === name ? looked : undefined }
}

function Moved({ lines }: { readonly lines: ReturnType<typeof movedPaths> }) {
  const changing = lines.filter(each => !each.isKept && each.share !== undefined).length
  const missing = lines.filter(each => each.share === undefined).length
  return (
    <>
      <h3>
        Old paths{' '}
        <span>
          kept: {lines.length - changing - missing}, to change: {changing}, without a share: {missing}
        </span>
      </h3>
      <table className="plain rows">
        <thead>
          <tr>
            <th>There</th>
            <th>Here</th>
            <th>Clients</th>
          </tr>
        </thead>
        <tbody>
          {lines.map(({ oldPath, newPath, isKept, share }, index) => (
            <tr key={index}>
              <td className="mono">{oldPath}</td>
              <td className="mono">{newPath ?? '–'}</td>
              <td>
                {share === undefined ? (
                  <State gravity="now">no share of this service is meant</State>
                ) : isKept ? (
                  <State gravity="fine">keep it</State>
                ) : (
                  <State gravity="soon">have to change it</State>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}

interface StepsProps {
  readonly taken: Parameters<typeof takeOverScripts>[0]
  readonly hasTickets: boolean
}

function Steps({ taken, hasTickets }: StepsProps) {
  const { names, namesBack, tickets, ticketsBack } = takeOverScripts(taken)
  const steps: readonly { readonly words: string; readonly script?: string | null }[] = [
    { words: 'Bring everything over once, while the old server still serves.' },
    ...(hasTickets
      ? [{ words: 'Let tickets be given for the old name too: by ldapmodify, before the switch.', script: tickets }]
      : []),
    { words: 'At the agreed moment: let the old server be read only, and bring over what was written since.' },
    { words: `The switch: by nsupdate. It is seen everywhere within ${takeOverSeconds / 60} minutes.`, script: names },
    { words: 'Let a host look, below; then take the old server from the network.' },
    { words: 'The way back, as long as nothing was written here: by nsupdate.', script: namesBack },
    ...(hasTickets ? [{ words: 'And no more tickets for it: by ldapmodify.', script: ticketsBack }] : []),
  ]
  return (
    <>
      <h3>
        In this order <span>click to copy</span>
      </h3>
      <ol className="m-0 list-none p-0">
        {steps.map(({ words, script }, index) => (
          <li key={words} className="mb-2">
            <div className={script == null ? '' : 'text-second'}>
              {index + 1}. {words}
            </div>
            {script != null && (
              <div className="border-l border-rule pl-3">
                <Copied text={script} shown={<span className="whitespace-pre-wrap">{script.trim()}</span>} />
              </div>
            )}
          </li>
        ))}
      </ol>
    </>
  )
}
