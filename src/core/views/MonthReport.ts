/** A pool over one month. */
export interface PoolMonth {
  readonly id: string
  readonly name: string
  readonly systemName: string
  /** What volumes can have of it now (bytes). */
  readonly capacityBytes: number
  /** Written at the first and at the last level that is known of the month; null where none is. */
  readonly firstBytes: number | null
  readonly lastBytes: number | null
  /** The highest level of the month. */
  readonly mostBytes: number | null
  /** Days from the end of the month until its limit, by the forecast of now; null where it is not in sight. */
  readonly daysToLimit: number | null
}

/** How a class's promise of latency was kept, by hours of its volumes. */
export interface ClassMonth {
  readonly id: string
  readonly name: string
  readonly volumes: number
  readonly promisedSeconds: number
  /** Hours of volumes that were measured, and of these whose mean was within what is promised. */
  readonly hours: number
  readonly hoursWithin: number
}

/** How a class's promise of snapshots was kept, by moments of its volumes. */
export interface SnapshotMonth {
  readonly id: string
  readonly name: string
  /** In the words of its rule. */
  readonly rule: string
  /** How many snapshots were due, of all its volumes, and of how many one was taken. */
  readonly due: number
  readonly taken: number
}

/** How another promise of a class was kept, by hours of its volumes. */
export interface PromiseMonth {
  readonly id: string
  readonly name: string
  /** In words, as it was promised last. */
  readonly promised: string
  /** Hours of volumes of which it could be told, and of these those in which it was kept. */
  readonly hours: number
  readonly hoursKept: number
}

/** Capacity, promises and work of one month. */
export interface MonthReport {
  /** `2026-10`. */
  readonly month: string
  /** It is over: what is told of it no longer moves. */
  readonly isOver: boolean
  readonly pools: readonly PoolMonth[]
  readonly classes: readonly ClassMonth[]
  readonly snapshots: readonly SnapshotMonth[]
  readonly promises: readonly PromiseMonth[]
  readonly changes: { readonly proven: number; readonly others: number }
  readonly findings: { readonly begun: number; readonly cleared: number; readonly standing: number }
}

/** The table of a report's pools, a line each. */
export const reportRows = ({ pools }: Pick<MonthReport, 'pools'>): readonly (readonly string[])[] => [
  [
    'pool',
    'system',
    'capacity bytes',
    'first bytes',
    'last bytes',
    'most bytes',
    'growth bytes',
    'fill percent',
    'days to limit',
  ],
  ...pools.map(({ name, systemName, capacityBytes, firstBytes, lastBytes, mostBytes, daysToLimit }) => [
    name,
    systemName,
    `${capacityBytes}`,
    `${firstBytes ?? ''}`,
    `${lastBytes ?? ''}`,
    `${mostBytes ?? ''}`,
    firstBytes === null || lastBytes === null ? '' : `${lastBytes - firstBytes}`,
    lastBytes === null || capacityBytes === 0 ? '' : ((lastBytes / capacityBytes) * 100).toFixed(1),
    `${daysToLimit ?? ''}`,
  ]),
]
