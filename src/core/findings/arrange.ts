import type { Finding, FindingTree } from './Finding'

const weight = { now: 0, soon: 1, note: 2 } as const

/**
 * Puts findings in the order in which to work: causes before what they explain, gravest first among equals, then by key so that
 * the order never changes by itself. Each stands beneath one of its causes, the gravest, among equals the one named first; explanations that run in a circle are cut at
 * the gravest finding of the circle.
 */
export function arrange(findings: readonly Finding[]): FindingTree[] {
  const byKey = new Map(findings.map(finding => [finding.key, finding]))
  const gravest = [...byKey.values()].sort((a, b) => weight[a.gravity] - weight[b.gravity] || (a.key < b.key ? -1 : 1))
  const rank = new Map(gravest.map((finding, index) => [finding.key, index]))
  const gravityOf = (key: string) => weight[byKey.get(key)?.gravity ?? 'note']
  const causesOf = (finding: Finding) =>
    finding.explainedBy.filter(key => key !== finding.key && byKey.has(key)).sort((a, b) => gravityOf(a) - gravityOf(b)) // a stable sort: among equals the one that is named first
  const placed = new Set<string>()
  const children = new Map<string, Finding[]>()
  const roots: Finding[] = []
  const waiting = new Set(gravest)
  while (waiting.size > 0) {
    const ready = [...waiting].filter(finding => {
      const causes = causesOf(finding)
      return causes.length === 0 || causes.some(key => placed.has(key))
    })
    // A circle: nobody has a placed cause, so the gravest stands on its own.
    for (const finding of ready.length > 0 ? ready : [...waiting].slice(0, 1)) {
      const cause = causesOf(finding).find(key => placed.has(key))
      if (cause === undefined) roots.push(finding)
      else children.set(cause, [...(children.get(cause) ?? []), finding])
      waiting.delete(finding)
    }
    for (const finding of gravest) if (!waiting.has(finding)) placed.add(finding.key)
  }
  const byRank = (a: Finding, b: Finding) => (rank.get(a.key) ?? 0) - (rank.get(b.key) ?? 0)
  const treeOf = (finding: Finding): FindingTree => ({
    finding,
    beneath: (children.get(finding.key) ?? []).sort(byRank).map(treeOf),
  })
  // What explains something grave is as urgent as that.
  const urgency = (tree: FindingTree): number => Math.min(weight[tree.finding.gravity], ...tree.beneath.map(urgency))
  return roots.map(treeOf).sort((a, b) => urgency(a) - urgency(b) || byRank(a.finding, b.finding))
}

/** All findings of a forest in the order of work. */
export const workOrder = (trees: readonly FindingTree[]): Finding[] =>
  trees.flatMap(tree => [tree.finding, ...workOrder(tree.beneath)])
