import type { FormClusterIntent as Intent } from '@/core/intents'
import { schemeWords, widthOf, type ClusterLayout } from '@/core/clusters'
import { nameCheck, type Estate, type System } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { formatBytes } from '@/core/units'
import { advise, must, rule } from '../../parts/checks'
import { banksCheck, cleanDriveChecks, type ClusterChoice } from '../../parts/clusterChoice'
import { nodesAnswer, rowChecks } from '../../parts/nodes'
import { findingsCheck } from '../../parts/openFindings'
import { rowReady } from '../../parts/rowReady'

export function checksOf(
  estate: Estate,
  intent: Intent,
  system: System | undefined,
  choice: ClusterChoice,
  laid: ClusterLayout,
  now: Date,
): PlanCheck[] {
  const nameTaken = estate.pools.some(pool => pool.systemId === intent.systemId && pool.name === `${intent.name}-01`)
  const odd = laid.domains.filter(domain => domain.strandedBytes > 0n)
  return [
    ...rowChecks(system, estate.nodes),
    ...(system?.clusterName == null
      ? []
      : [
          must('no-cluster-yet', false, `The nodes of ${system.name} form ${system.clusterName} already.`, {
            remedy: 'Add to that one.',
          }),
        ]),
    nameCheck(intent.name, 'the cluster'),
    rule('name-free', !nameTaken, 'The name is free.', 'A pool of that name exists.', { field: 'name' }),
    nodesAnswer(choice.nodes),
    ...rowReady(estate, intent.systemId, choice.nodes),
    findingsCheck(estate, intent.systemId, new Set(choice.nodes.map(node => node.id)), now),
    ...cleanDriveChecks(choice, intent.driveIds.length),
    banksCheck(estate, choice),
    alikeCheck(choice),
    ...layoutChecks(intent, laid),
    advise(
      'nothing-stranded',
      odd.length === 0,
      'No node holds space that the others cannot match.',
      `${odd.map(domain => `${domain.name} strands ${formatBytes(domain.strandedBytes)}`).join('; ')}: the others hold too little beside it.`,
      { field: 'driveIds', remedy: 'See below what would free it.' },
    ),
  ]
}

function alikeCheck(choice: ClusterChoice): PlanCheck {
  const wordsOf = (nodeId: string) =>
    choice.banks
      .filter(bank => bank.nodeId === nodeId)
      .map(bank => bank.capacityDriveIds.length)
      .sort()
      .join(' and ')
  const kinds = new Set(choice.nodes.map(node => wordsOf(node.id)))
  return advise(
    'alike',
    kinds.size <= 1,
    'All nodes have banks of the same shape.',
    'The nodes do not have banks of the same shape; the table shows what differs.',
    { field: 'driveIds' },
  )
}

function layoutChecks(intent: Intent, laid: ClusterLayout): PlanCheck[] {
  const width = widthOf(intent.scheme)
  const domains = laid.domains.length
  const words = intent.domain === 'node' ? 'nodes' : `${intent.domain}s`
  const fits = domains >= width
  const heals = laid.layout.rebuildPossible
  return [
    rule(
      'layout',
      fits,
      `${schemeWords(intent.scheme)} over ${domains} ${words}.`,
      `${schemeWords(intent.scheme)} takes ${width} ${words}, a piece on each; the choice has ${domains === 0 ? 'none with a whole bank' : domains}.`,
      {
        field: 'scheme',
        remedy: `Choose drives in ${width - domains} more ${words}, or a narrower layout.`,
      },
    ),
    advise(
      'heals',
      heals,
      `After losing one of the ${words} everything can be made whole again on the others.`,
      `After losing one of the ${words} nothing can be made whole until it is back: fewer than ${width} would be left.`,
      { field: 'scheme', remedy: `Take one more of the ${words} than the layout needs.` },
    ),
    advise(
      'reserve',
      intent.keepsRebuildReserve || !heals,
      heals
        ? `${formatBytes(laid.rebuildReserveBytes)} is kept free for that.`
        : 'No reserve is kept, since it could not be used.',
      'Without a reserve a full cluster cannot make itself whole again.',
      {
        field: 'keepsRebuildReserve',
      },
    ),
  ]
}
