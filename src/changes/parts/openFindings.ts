import type { Estate } from '@/core/estate'
import { rowFindings, standing, type Finding } from '@/core/findings'
import type { PlanCheck } from '@/core/plan'
import { rule } from './checks'

/** Findings that have a check of their own in the plans of a row, or that such a plan mends itself. */
const toldElsewhere = new Set([
  'clock-off',
  'firmware-differs',
  'paths',
  'mtu',
  'vlan',
  'link',
  'node-silent',
  'restart-off',
])

/** Findings of some nodes of a row that call for work now or soon, and that nobody has signed for. What is only a note may stand. */
export function openFindings(estate: Estate, systemId: string, nodeIds: ReadonlySet<string>, now: Date): Finding[] {
  const isElsewhere = (nodeId: string | null) => nodeId !== null && !nodeIds.has(nodeId)
  const others = new Set([
    ...estate.nodes.filter(node => isElsewhere(node.id)).map(node => node.id),
    ...estate.nodePorts.filter(port => isElsewhere(port.nodeId)).map(port => port.id),
    ...estate.drives.filter(drive => isElsewhere(drive.nodeId)).map(drive => drive.id),
  ])
  return standing(rowFindings(estate, systemId), estate.exceptions, now)
    .filter(({ finding, exception }) => exception === undefined && finding.gravity !== 'note')
    .map(({ finding }) => finding)
    .filter(({ key }) => !key.split('/').some(part => others.has(part)))
}

/** What is built ends without open findings: each is mended or signed for before. */
export function findingsCheck(estate: Estate, systemId: string, nodeIds: ReadonlySet<string>, now: Date): PlanCheck {
  const open = openFindings(estate, systemId, nodeIds, now).filter(finding => !toldElsewhere.has(finding.check))
  const [first] = open
  return rule(
    'findings',
    first === undefined,
    'No finding of these nodes stands that nobody has signed for.',
    `${open.map(finding => finding.title).join('; ')}.`,
    {
      remedy: 'Mend what is found, or sign an exception with the day on which it ends.',
      ...(first === undefined
        ? {}
        : {
            href:
              first.draft?.href ??
              `/build/network?system=${systemId}&draft=sign-exception&finding=${encodeURIComponent(first.key)}`,
          }),
    },
  )
}
