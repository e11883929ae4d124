'use client'
import { useId, useState } from 'react'
import { intakeState, suffixOf, type Drive, type Node } from '@/core/estate'
import { readBays } from '../bayField'
import { kindWords } from '../intake'

type Role = 'cache' | 'capacity'

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
        <select
          className="field h-[26px] w-auto py-0"
          aria-label="Nodes to choose in"
          value={nodeId}
          onChange={event => setNode(event.target.value)}
        >
          <option value="">all {nodes.length} nodes</option>
          {nodes.map(node => (
            <option key={node.id} value={node.id}>
              {node.name}
            </option>
          ))}
        </select>
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
                  <select
                    className="field h-[24px] w-auto py-0"
                    aria-label={`Role of ${words}`}
                    value={isMixed ? 'mixed' : role}
                    onChange={event => setAll(own, event.target.value as Role)}
                  >
                    {isMixed && <option value="mixed">mixed</option>}
                    <option value="cache">cache</option>
                    <option value="capacity">capacity</option>
                  </select>
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
      <details className="mt-1">
        <summary className="cursor-pointer text-second">One by one, as a table</summary>
        <div className="max-h-[260px] overflow-auto">
          <table className="plain">
            <tbody>
              {inReach.map(drive => (
                <tr key={drive.id}>
                  <td>
                    <label className="flex items-center gap-2">
                      <input
                        type="checkbox"
                        checked={isChosen.has(drive.id)}
                        onChange={() => (isChosen.has(drive.id) ? drop([drive]) : add([drive]))}
                      />
                      {nodes.find(node => node.id === drive.nodeId)?.name}, bay {drive.bay}
                    </label>
                  </td>
                  <td className="mono">{suffixOf(drive.serial)}</td>
                  <td>{kindWords(drive)}</td>
                  <td>
                    {setRoles === undefined ? (
                      intakeState(drive)
                    ) : (
                      <select
                        className="field h-[22px] w-auto py-0"
                        aria-label={`Role of ${suffixOf(drive.serial)}`}
                        value={roleOf(drive)}
                        onChange={event => setAll([drive], event.target.value as Role)}
                      >
                        <option value="cache">cache</option>
                        <option value="capacity">capacity</option>
                      </select>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </details>
    </div>
  )
}
