'use client'
import { group } from 'd3-array'
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
  const [nodeId, setNode] = useState('')
  const inReach = drives.filter(drive => nodeId === '' || drive.nodeId === nodeId)
  const hand: Hand = {
    isChosen: new Set(chosen),
    roleOf: drive => roles[drive.id] ?? suggested[drive.id]?.role ?? 'capacity',
    add: own => choose([...new Set([...chosen, ...own.map(drive => drive.id)])]),
    drop: own => choose(chosen.filter(id => !own.some(drive => drive.id === id))),
    ...(setRoles === undefined
      ? {}
      : {
          setAll: (own, role) => setRoles({ ...roles, ...Object.fromEntries(own.map(drive => [drive.id, role])) }),
        }),
  }
  const kinds = group(inReach, kindWords)
  return (
    <div className="mb-[9px]">
      <span className="label">Drives</span>
      <div className="mb-1 flex items-center gap-2">
        <NodeChoice nodeId={nodeId} nodes={nodes} setNode={setNode} />
        <BayRange drives={inReach} add={hand.add} />
      </div>
      {kinds.size === 0 && <div className="advice">No drive here can be chosen.</div>}
      {[...kinds].map(([words, own]) => (
        <KindLine key={words} words={words} own={own} why={suggested[own[0]?.id ?? '']?.why} hand={hand} />
      ))}
      <Fold className="mt-1" title="One by one, as a table">
        <OneByOne drives={inReach} nodes={nodes} hand={hand} />
      </Fold>
    </div>
  )
}

/** What can be done with drives that are offered. */
interface Hand {
  readonly isChosen: ReadonlySet<string>
  readonly roleOf: (drive: Drive) => Role
  readonly add: (own: readonly Drive[]) => void
  readonly drop: (own: readonly Drive[]) => void
  /** Undefined where roles are not for choosing. */
  readonly setAll?: (own: readonly Drive[], role: Role) => void
}

interface BayRangeProps {
  readonly drives: readonly Drive[]
  readonly add: Hand['add']
}

/** Drives by the numbers of their bays: `1-8, 11`. */
function BayRange({ drives, add }: BayRangeProps) {
  const id = useId()
  const [bays, setBays] = useState('')
  const read = readBays(bays)
  const inBays = drives.filter(drive => read?.has(drive.bay) === true)
  return (
    <>
      <label className="text-second" htmlFor={id}>
        bays
      </label>
      <input
        id={id}
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
    </>
  )
}

interface KindLineProps {
  readonly words: string
  readonly own: readonly Drive[]
  /** Why its role is suggested. */
  readonly why: string | undefined
  readonly hand: Hand
}

/** Drives of one kind, taken or given back at a stroke, all in one role. */
function KindLine({ words, own, why, hand }: KindLineProps) {
  const { isChosen, roleOf, add, drop, setAll } = hand
  const taken = own.filter(drive => isChosen.has(drive.id)).length
  const roles = new Set(own.map(roleOf))
  const [role = 'capacity'] = roles
  return (
    <div className="border-b border-rule-fine py-1">
      <div className="flex items-center justify-between gap-2">
        <span>
          {words}: <b>{taken}</b> of {own.length}
        </span>
        <span className="flex items-center gap-2">
          {setAll !== undefined && (
            <Select
              className="h-[24px] w-[92px] py-0"
              aria-label={`Role of ${words}`}
              value={roles.size > 1 ? '' : role}
              placeholder="mixed"
              options={roleOptions}
              onChange={value => value !== '' && setAll(own, value)}
            />
          )}
          <button
            type="button"
            className="button quiet py-[2px]"
            onClick={() => (taken === own.length ? drop(own) : add(own))}
          >
            {taken === own.length ? 'Take none' : `Take all ${own.length}`}
          </button>
        </span>
      </div>
      {setAll !== undefined && <div className="hint">{why}</div>}
    </div>
  )
}

interface OneByOneProps {
  readonly drives: readonly Drive[]
  readonly nodes: readonly Node[]
  readonly hand: Hand
}

const OneByOne = ({ drives, nodes, hand: { isChosen, roleOf, add, drop, setAll } }: OneByOneProps) => (
  <div className="max-h-[260px] overflow-auto">
    <table className="plain">
      <tbody>
        {drives.map(drive => (
          <tr key={drive.id}>
            <td>
              <Tick isOn={isChosen.has(drive.id)} onChange={isOn => (isOn ? add([drive]) : drop([drive]))} className="">
                {nodes.find(node => node.id === drive.nodeId)?.name}, bay {drive.bay}
              </Tick>
            </td>
            <td className="mono">{suffixOf(drive.serial)}</td>
            <td>{kindWords(drive)}</td>
            <td>
              {setAll === undefined ? (
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
)

interface NodeChoiceProps {
  readonly nodeId: string
  readonly nodes: readonly Node[]
  readonly setNode: (nodeId: string) => void
}

const NodeChoice = ({ nodeId, nodes, setNode }: NodeChoiceProps) => (
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
)
