/** What the server tells of, as pages hear it. */
interface Told {
  readonly topic: string
  /** The table of the estate that has changed, or the change. */
  readonly of: string
}

/** Of the estate's tables, those that pages below a path show; the first that fits counts. A path that is not here shows all. */
const shown: readonly (readonly [string, ReadonlySet<string>])[] = [
  ['/provision/hosts', new Set(['hosts', 'host_groups', 'host_paths', 'mappings', 'systems'])],
  ['/provision/shares', new Set(['shares', 'file_services', 'hosts', 'volumes', 'systems'])],
  ['/provision/file-systems', new Set(['file_systems', 'shares', 'volumes', 'systems'])],
  ['/provision/file-services', new Set(['file_services', 'shares', 'systems'])],
  ['/grant/people', new Set(['principals', 'directories', 'shares', 'file_services'])],
  ['/grant/connections', new Set(['connection_tests', 'shares', 'file_services', 'hosts'])],
  ['/grant/reviews', new Set(['reviews', 'shares', 'principals'])],
  ['/grant/directories', new Set(['directories', 'principals'])],
  ['/grant', new Set(['principals', 'shares', 'file_services', 'hosts', 'systems'])],
  [
    '/provision',
    new Set([
      'volumes',
      'snapshots',
      'consistency_groups',
      'service_classes',
      'mappings',
      'pools',
      'hosts',
      'host_groups',
      'host_paths',
      'systems',
    ]),
  ],
  [
    '/build/network',
    new Set(['systems', 'nodes', 'switches', 'node_ports', 'switch_ports', 'path_probes', 'findings']),
  ],
  ['/build/drives', new Set(['drives', 'pools', 'systems', 'nodes'])],
  ['/build/ports', new Set(['ports', 'systems'])],
  ['/build/pools', new Set(['pools', 'drives', 'volumes', 'systems'])],
  ['/watch/health', new Set(['findings', 'drives', 'systems'])],
  ['/watch/telling', new Set(['told_messages', 'rules', 'routes'])],
  ['/watch/rules', new Set(['rules', 'routes'])],
  ['/watch/routes', new Set(['routes', 'rules'])],
  ['/watch/left-behind', new Set(['volumes', 'snapshots', 'mappings', 'file_systems'])],
  ['/watch', new Set(['growth_forecasts', 'pools', 'systems'])],
  ['/changes', new Set()],
  ['/account', new Set()],
]

const isBelow = (path: string, place: string) => path === place || path.startsWith(`${place}/`)

/** Whether what has changed is shown on a page: changes are on every one, in the line along the top. */
export function concerns(path: string, message: string): boolean {
  let told: Partial<Told>
  try {
    told = JSON.parse(message) as Partial<Told>
  } catch {
    return true // what is not understood may be anything
  }
  if (told.topic !== 'estate') return true
  const tables = shown.find(([place]) => isBelow(path, place))?.[1]
  return tables === undefined || tables.has(told.of ?? '')
}
