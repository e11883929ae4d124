import { emptyEstate, type Drive, type Estate } from '@/core/estate'
import {
  sampleDrive,
  sampleId,
  sampleNode,
  sampleNodePort,
  sampleSwitch,
  sampleSwitchPort,
  sampleSystem,
} from '@/core/estate/testing/samples'
import type { Plan } from '@/core/plan'
import { kindNamed } from '..'

export const systemId = sampleId(1)
export const poolId = sampleId(9)
export const now = new Date('2026-05-04T10:00:00Z')
export const numbers = [1, 2, 3, 4]
export const terabyte = 10n ** 12n

export const drivesOf = (node: number, more: (bay: number) => Partial<Drive> = () => ({})) => [
  sampleDrive(node * 10, {
    nodeId: sampleId(node),
    bay: 9,
    protocol: 'SAS',
    capacityBytes: 8n * 10n ** 11n,
    driveWritesPerDay: 10,
    ...more(9),
  }),
  ...[1, 2].map(bay =>
    sampleDrive(node * 10 + bay, {
      nodeId: sampleId(node),
      bay,
      media: 'HDD',
      protocol: 'SAS',
      capacityBytes: 4n * terabyte,
      ...more(bay),
    }),
  ),
]
export const probed = (passedMtu: number | null = 9000) =>
  numbers.flatMap(from =>
    numbers
      .filter(to => to !== from)
      .map(to => ({ fromNodeId: sampleId(from), toNodeId: sampleId(to), passedMtu, why: null })),
  )
/** A sound row of four nodes whose paths pass, each with a cache drive and two disks. */
export const sampleRow = (more: Partial<Estate> = {}): Estate => ({
  ...emptyEstate,
  systems: [sampleSystem({ name: 'godwit' })],
  nodes: numbers.map(number => sampleNode(number)),
  nodePorts: numbers.map(number => sampleNodePort(number)),
  switches: [sampleSwitch()],
  switchPorts: numbers.map(number => sampleSwitchPort(number)),
  drives: numbers.flatMap(number => drivesOf(number)),
  pathProbes: [{ systemId, at: now.toISOString(), wantedMtu: 9000, answers: probed() }],
  ...more,
})
export const planned = (kind: string, intent: object, from = sampleRow()): Plan =>
  kindNamed(kind).plan(from, intent, now)
export const check = (plan: Plan, rule: string) => plan.checks.find(each => each.rule === rule)
