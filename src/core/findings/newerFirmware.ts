import { group } from 'd3-array'
import type { Catalogue, Estate } from '../estate'
import { found } from './found'
import type { Finding } from './Finding'

/** Compares versions part by part: numbers by value, anything else by letter. Above 0: `a` is newer. */
export function compareVersions(a: string, b: string): number {
  const parts = (text: string) => text.split(/[.\-_+]/)
  const [left, right] = [parts(a), parts(b)]
  for (let index = 0; index < Math.max(left.length, right.length); index += 1) {
    const [one = '0', other = '0'] = [left[index], right[index]]
    const isNumber = /^\d+$/.test(one) && /^\d+$/.test(other)
    const difference = isNumber ? Number(one) - Number(other) : one === other ? 0 : one < other ? -1 : 1
    if (difference !== 0) return difference
  }
  return 0
}

/** What a catalogue file knows to be newer than what runs, once for each component and model. */
export function newerFirmware(
  row: Pick<Estate, 'nodes' | 'drives' | 'switches' | 'catalogues'>,
  systemId: string,
): Finding[] {
  const running = [
    ...row.nodes.map(({ systemId: of, model, firmware }) => ({ of, component: 'node' as const, model, firmware })),
    ...row.drives.map(({ systemId: of, model, firmware }) => ({ of, component: 'drive' as const, model, firmware })),
    ...row.switches.map(({ systemId: of, model, firmware }) => ({ of, component: 'switch' as const, model, firmware })),
  ].filter(each => each.of === systemId && each.model !== null && each.firmware !== null)
  const kinds = group(running, ({ component, model }) => `${component}/${model}`)
  return [...kinds.values()].flatMap(alike => {
    const [first] = alike
    if (first === undefined) return []
    const newest = newestOf(row.catalogues, first.component, first.model ?? '')
    if (newest === undefined) return []
    const behind = alike.filter(each => compareVersions(newest.version, each.firmware ?? '') > 0)
    if (behind.length === 0) return []
    return [
      found(
        'newer-firmware',
        `${systemId}/${first.component}/${first.model}`,
        newest.isUrgent ? 'soon' : 'note',
        `Firmware ${newest.version} is out for ${first.component} ${first.model}`,
        {
          evidence: `${behind.length} of ${alike.length} run ${[...new Set(behind.map(each => each.firmware))].join(', ')}; released ${newest.releasedAt.slice(0, 10)}. ${newest.notes}`,
          risk: newest.isUrgent ? 'Its maker calls it urgent.' : 'None is known; it holds corrections.',
          remedy: "Bring it in with the maker's own tool, all alike.",
          offline: 'The catalogue file names the version; carry the firmware on a stick.',
        },
      ),
    ]
  })
}

function newestOf(catalogues: readonly Catalogue[], component: string, model: string) {
  return catalogues
    .flatMap(catalogue => catalogue.entries)
    .filter(entry => entry.component === component && entry.model === model)
    .reduce<Catalogue['entries'][number] | undefined>(
      (newest, entry) => (newest === undefined || compareVersions(entry.version, newest.version) > 0 ? entry : newest),
      undefined,
    )
}
