'use client'
import { useState } from 'react'
import { ask } from '../../api'
import { SelectField } from '../../parts/Select'
import { Mark, Trouble } from '../../parts/State'

interface SightsProps {
  readonly oldName: string
  readonly hosts: readonly { readonly id: string; readonly name: string }[]
  readonly addresses: readonly string[]
}
interface Sight {
  readonly host: string
  readonly address: string | null
  readonly isOpen: boolean
  readonly milliseconds: number
  readonly at: string
}

/** What a host sees under the old name, time after time: before the switch, and after it. */
export function Sights({ oldName, hosts, addresses }: SightsProps) {
  const [hostId, setHost] = useState(hosts[0]?.id ?? '')
  const [sights, setSights] = useState<readonly Sight[]>([])
  const [trouble, setTrouble] = useState<string>()
  const look = async () => {
    const answer = await ask<Omit<Sight, 'host'>>('POST', '/host-connections', { hostId, server: oldName })
    if (!answer.ok) return setTrouble(`${answer.refusal.what} ${answer.refusal.why}`)
    setTrouble(undefined)
    const host = hosts.find(({ id }) => id === hostId)?.name ?? ''
    setSights([...sights, { host, ...answer.value }])
  }
  if (hosts.length === 0) return <p className="text-second">No host with an agent is known that could look.</p>
  return (
    <>
      <h3>
        What a client sees <span>before the switch, and after it</span>
      </h3>
      <div className="grid max-w-[420px] grid-cols-[minmax(0,1fr)_auto] items-start gap-x-3">
        <SelectField
          label="Host"
          value={hostId}
          options={hosts.map(({ id, name }) => ({ value: id, words: name }))}
          onChange={setHost}
        />
        <button type="button" className="button quiet mt-[19px]" onClick={() => void look()}>
          Let it look
        </button>
      </div>
      {trouble !== undefined && <Trouble>{trouble}</Trouble>}
      {sights.length > 0 && (
        <table className="plain rows">
          <tbody>
            {sights.map(sight => (
              <SightRow key={sight.at} sight={sight} addresses={addresses} />
            ))}
          </tbody>
        </table>
      )}
    </>
  )
}

function SightRow({ sight, addresses }: { readonly sight: Sight } & Pick<SightsProps, 'addresses'>) {
  const { host, address, isOpen, milliseconds, at } = sight
  const isHere = address !== null && addresses.includes(address)
  return (
    <tr>
      <td className="mono text-second">{at.slice(11, 19)}</td>
      <td>{host}</td>
      <td className="mono">{address ?? 'no address'}</td>
      <td>
        <span className={isHere && isOpen ? 'text-fine' : 'text-soon'}>
          <Mark gravity={isHere && isOpen ? 'fine' : 'soon'} />
        </span>{' '}
        {isHere ? (isOpen ? 'this service answers' : 'this service, no way through') : 'not this service'}
      </td>
      <td className="number mono">{milliseconds.toFixed(1)} ms</td>
    </tr>
  )
}
