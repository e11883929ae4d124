/** By which ways one host sees one disk. */
export interface WaysSeen {
  readonly hostId: string
  readonly hostName: string
  readonly hostGroupId: string
  readonly naa: string
  readonly lun: number
  /** The volume or snapshot that it is; null where the records do not know it. */
  readonly disk: { readonly id: string; readonly name: string; readonly isVolume: boolean } | null
  readonly systemName: string
  readonly ways: readonly { readonly target: string; readonly controller: string | null; readonly isUp: boolean }[]
  /** Since when it is so. */
  readonly since: string
}

/** How many of the ways are up at each controller, the controllers by name. */
export function upByController({ ways }: Pick<WaysSeen, 'ways'>): readonly {
  readonly controller: string
  readonly up: number
  readonly all: number
}[] {
  const counts = new Map<string, { up: number; all: number }>()
  for (const { controller, isUp } of ways) {
    const count = counts.get(controller ?? 'unknown') ?? { up: 0, all: 0 }
    count.all += 1
    if (isUp) count.up += 1
    counts.set(controller ?? 'unknown', count)
  }
  return [...counts]
    .map(([controller, count]) => ({ controller, ...count }))
    .sort((a, b) => a.controller.localeCompare(b.controller))
}
