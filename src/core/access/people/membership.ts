/** A person or a group, with the groups of which it is a member itself. */
export interface Member {
  readonly durableId: string
  readonly memberOf: readonly string[]
}

/**
 * Every group that somebody is in, through others too, the nearest first. Groups that contain each other are each told once: a ring ends.
 * @param groups by their durable ids; a group that is not among them counts as itself only
 */
export function groupsAbove<G extends Member>(somebody: Member, groups: ReadonlyMap<string, G>): G[] {
  const found = new Map<string, G>()
  let next = somebody.memberOf
  while (next.length > 0) {
    const fresh = [...new Set(next)].flatMap(id => {
      const group = found.has(id) ? undefined : groups.get(id)
      return group === undefined || id === somebody.durableId ? [] : [group]
    })
    fresh.forEach(group => found.set(group.durableId, group))
    next = fresh.flatMap(({ memberOf }) => memberOf)
  }
  return [...found.values()]
}

/** By which groups, one within the next, somebody is in a group; the shortest way. Undefined where there is none. */
export function wayTo<G extends Member>(
  somebody: Member,
  groupId: string,
  groups: ReadonlyMap<string, G>,
): G[] | undefined {
  const from = new Map<string, string | undefined>()
  let next: readonly (readonly [string, string | undefined])[] = somebody.memberOf.map(id => [id, undefined])
  while (next.length > 0 && !from.has(groupId)) {
    const fresh = next.filter(([id]) => !from.has(id) && groups.has(id))
    for (const [id, below] of fresh) if (!from.has(id)) from.set(id, below)
    next = fresh.flatMap(([id]) => (groups.get(id)?.memberOf ?? []).map(above => [above, id] as const))
  }
  if (!from.has(groupId)) return undefined
  const way: G[] = []
  for (let at: string | undefined = groupId; at !== undefined; at = from.get(at)) {
    const group = groups.get(at)
    if (group !== undefined) way.unshift(group)
  }
  return way
}

/** Groups that contain each other, ring by ring: whoever is in one of them is in all. Source: Tarjan, 1972. */
export function rings<G extends Member>(groups: ReadonlyMap<string, G>): G[][] {
  const order = new Map<string, number>()
  const low = new Map<string, number>()
  const held: string[] = []
  const isHeld = new Set<string>()
  const found: G[][] = []
  for (const start of groups.keys()) {
    if (order.has(start)) continue
    // With a stack of its own: directories nest deeper than calls may.
    const open: { readonly id: string; readonly above: readonly string[]; at: number }[] = []
    const enter = (id: string) => {
      order.set(id, order.size)
      low.set(id, order.size - 1)
      held.push(id)
      isHeld.add(id)
      open.push({ id, above: (groups.get(id)?.memberOf ?? []).filter(each => groups.has(each)), at: 0 })
    }
    enter(start)
    for (let top = open.at(-1); top !== undefined; top = open.at(-1)) {
      const next = top.above[top.at]
      top.at += 1
      if (next !== undefined) {
        if (!order.has(next)) enter(next)
        else if (isHeld.has(next)) low.set(top.id, Math.min(low.get(top.id) ?? 0, order.get(next) ?? 0))
        continue
      }
      open.pop()
      const below = open.at(-1)
      if (below !== undefined) low.set(below.id, Math.min(low.get(below.id) ?? 0, low.get(top.id) ?? 0))
      if (low.get(top.id) !== order.get(top.id)) continue
      const ring = held.splice(held.indexOf(top.id))
      ring.forEach(id => isHeld.delete(id))
      const isRing = ring.length > 1 || top.above.includes(top.id)
      if (isRing) found.push(ring.flatMap(id => groups.get(id) ?? []))
    }
  }
  return found
}
