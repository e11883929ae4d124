import { byId, type Estate, type Node, type System } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import type { ChangePorts, Nodes } from '@/ports'
import { answers, must, rule } from './checks'

/** That a system is there, answers, and is a row of nodes. */
export function rowChecks(system: System | undefined, nodes: readonly Node[]): PlanCheck[] {
  if (system === undefined) return [must('system', false, 'Choose the row of nodes.', { field: 'systemId' })]
  return [
    answers(system),
    ...(nodes.length > 0 ? [] : [must('has-nodes', false, `${system.name} has no nodes: it is no row of servers.`)]),
  ]
}

/** That each of the nodes answers. */
export function nodesAnswer(nodes: readonly Node[]): PlanCheck {
  const silent = nodes.filter(node => node.state !== 'fine').map(node => node.name)
  return rule(
    'nodes-answer',
    silent.length === 0,
    'All nodes answer.',
    `${silent.join(', ')} ${silent.length === 1 ? 'does' : 'do'} not answer.`,
    { remedy: 'Wait until they are up, or leave them out.' },
  )
}

export const nodesOf = (estate: Estate, ids: readonly string[]): Node[] =>
  [...new Set(ids)].flatMap(id => byId(estate.nodes, id) ?? [])

/** Switches the restart service of nodes; says each one, and leaves alone what is as wanted. */
export async function switchRestartService(
  nodes: Nodes,
  nodeLocators: readonly string[],
  isOn: boolean,
  ports: ChangePorts,
): Promise<void> {
  for (const [index, locator] of nodeLocators.entries()) {
    if ((await nodes.isRestartServiceOn(locator)) !== isOn) await nodes.setRestartService(locator, isOn)
    await ports.progress((index + 1) / nodeLocators.length, isOn ? 'Switching on again' : 'Switching off')
  }
}

/** Switches it on again as far as nodes answer. @returns what is left, in words */
export async function switchOnAsFarAsPossible(
  nodes: Nodes,
  nodeLocators: readonly string[],
): Promise<string | undefined> {
  const left: string[] = []
  for (const locator of nodeLocators) {
    if (await nodes.isAnswering(locator)) await nodes.setRestartService(locator, true)
    else left.push(locator.split('/').at(-1) ?? locator)
  }
  return left.length === 0
    ? undefined
    : `The restart service of ${left.join(', ')} may still be off: ${left.length === 1 ? 'it does' : 'they do'} not answer.`
}
