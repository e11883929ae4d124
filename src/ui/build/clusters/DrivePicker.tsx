'use client'
import { useId, useState } from 'react'
import { intakeState, kindWords, suffixOf, type Drive, type Node } from '@/core/estate'
import { readBays } from '../bayField'
import { Tick } from '../../parts/Checkbox'
import { Fold } from '../../parts/Fold'
import { Select, type SelectOption } from '../../parts/Select'

type Role = 'cache' | 'capacity'

const roleOptions: readonly SelectOption<Role | ''>[] = [
  { value: 'cache', words: 'cache' },
  { value: 'capacity', words: 'capacity' },
]

interface DrivePickerProps {
  readonly nodes: readonly Node[]
  readonly drives: readonly Drive[]
  readonly chosen: readonly string[]
  readonly choose: (ids: readonly string[]) => void
  readonly roles: Readonly<Record<string, Role>>
  readonly setRoles?: (roles: Readonly<Record<string, Role>>) => void
  readonly suggested: Readonly<Record<string, { readonly role: Role; readonly why: string }>>
}

/** Choosing many drives at a stroke: by kind, by bay range, by node, or one by one from the table that stands for the drawing. */
export function DrivePicker({ nodes, drives, chosen, choose, roles, setRoles, suggested }: DrivePickerProps) {
  const [bays, setBays] = useState('')
  const [nodeId, setNode] = useState('')
  const baysId = useId()
  const isChosen = new Set(chosen)
  const inReach = drives.filter(drive => nodeId === '' || drive.nodeId === nodeId)
  const read = readBays(bays)
  const inBays = inReach.filter(drive => read?.has(drive.bay) === true)
  const kinds = new Map<string, Drive[]>()
  for (const drive of inReach) kinds.set(kindWords(drive), [...(kinds.get(kindWords(drive)) ?? []), drive])
  const roleOf = (drive: Drive): Role => roles[drive.id] ?? suggested[drive.id]?.role ?? 'capacity'
  const add = (own: readonly Drive[]) => choose([...new Set([...chosen, ...own.map(drive => drive.id)])])
  const drop = (own: readonly Drive[]) => choose(chosen.filter(id => !own.some(drive => drive.id === id)))
  const setAll = (own: readonly Drive[], role: Role) =>
    setRoles?.({ ...roles, ...Object.fromEntries(own.map(drive => [drive.id, role])) })
  return (
    <div className="mb-[9px]">
      <span className="label">Drives</span>
      <div className="mb-1 flex items-center gap-2">
        <Select
          className="h-[26px] w-[120px] py-0"
          aria-label="Nodes to choose in"
          value={nodeId}
          options={[
            { value: '', words: `all ${nodes.length} nodes` },
            ...nodes.map(({ id, name }) => ({ value: id, words: name })),
          ]}
          onChange={setNode}
        />
        <label className="text-second" htmlFor={baysId}>
          bays
        </label>
        <input
          id={baysId}
          className="field mono h-[26px] w-[90px]"
          value={bays}
          placeholder="1-8, 11"
          aria-invalid={bays !== '' && read === undefined}
          onChange={event => setBays(event.target.value)}
        />
        <button
          type="button"
          className="button quiet py-[2px]"
          disabled={inBays.length === 0}
          onClick={() => add(inBays)}
        >
          Take {inBays.length === 0 ? '' : inBays.length}
        </button>
      </div>
      {kinds.size === 0 && <div className="advice">No drive here can be chosen.</div>}
      {[...kinds].map(([words, own]) => {
        const taken = own.filter(drive => isChosen.has(drive.id))
        const [first] = own
        const role = first === undefined ? 'capacity' : roleOf(first)
        const isMixed = own.some(drive => roleOf(drive) !== role)
        return (
          <div key={words} className="border-b border-rule-fine py-1">
            <div className="flex items-center justify-between gap-2">
              <span>
                {words}: <b>{taken.length}</b> of {own.length}
              </span>
              <span className="flex items-center gap-2">
                {setRoles !== undefined && (
                  <Select
                    className="h-[24px] w-[92px] py-0"
                    aria-label={`Role of ${words}`}
                    value={isMixed ? '' : role}
                    placeholder="mixed"
                    options={roleOptions}
                    onChange={value => value !== '' && setAll(own, value)}
                  />
                )}
                <button
                  type="button"
                  className="button quiet py-[2px]"
                  onClick={() => (taken.length === own.length ? drop(own) : add(own))}
                >
                  {taken.length === own.length ? 'Take none' : `Take all ${own.length}`}
                </button>
              </span>
            </div>
            {setRoles !== undefined && <div className="hint">{suggested[own[0]?.id ?? '']?.why}</div>}
          </div>
        )
      })}
      <Fold className="mt-1" title="One by one, as a table">
        <div className="max-h-[260px] overflow-auto">
          <table className="plain">
            <tbody>
              {inReach.map(drive => (
                <tr key={drive.id}>
                  <td>
                    <Tick
                      isOn={isChosen.has(drive.id)}
                      onChange={isOn => (isOn ? add([drive]) : drop([drive]))}
                      className=""
                    >
                      {nodes.find(node => node.id === drive.nodeId)?.name}, bay {drive.bay}
                    </Tick>
                  </td>
                  <td className="mono">{suffixOf(drive.serial)}</td>
                  <td>{kindWords(drive)}</td>
                  <td>
                    {setRoles === undefined ? (
                      intakeState(drive)
                    ) : (
                      <Select
                        className="h-[22px] w-[92px] py-0"
                        aria-label={`Role of ${suffixOf(drive.serial)}`}
                        value={roleOf(drive)}
                        options={roleOptions}
                        onChange={value => value !== '' && setAll([drive], value)}
                      />
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </Fold>
    </div>
  )
}
