import { hasAgent } from '@/core/estate'
import type { FieldChoices, IntentKind } from '@/core/intents'
import { objects } from '@/records/objects'
import { applications, hostGroups, pools, sites } from '@/records/queries'
import { reader } from './guard'

type Option = { readonly value: string; readonly words: string }

/** What the fields of a form can be chosen from, where it does not depend on what the draft is about. */
export async function choicesFor({ form }: IntentKind): Promise<Partial<Record<FieldChoices, readonly Option[]>>> {
  const wanted = new Set(form?.fields.flatMap(field => field.choices ?? []) ?? [])
  const { scope } = await reader()
  const groups = [...wanted].some(each => each.includes('host groups')) ? await hostGroups(scope) : []
  const places = wanted.has('sites') || wanted.has('sites or none') ? await sites(scope) : []
  const allPools = wanted.has('pools or none') ? await pools(scope) : []
  const routes = wanted.has('routes') ? await objects(scope, 'routes') : []
  const services = wanted.has('file services') ? await objects(scope, 'fileServices') : []
  const systems = wanted.has('systems that serve files') || wanted.has('systems') ? await objects(scope, 'systems') : []
  const hosts = wanted.has('hosts with an agent') ? await objects(scope, 'hosts') : []
  const served = wanted.has('names of applications') ? await applications(scope) : []
  const classes = wanted.has('service classes') ? await objects(scope, 'serviceClasses') : []
  const directories = wanted.has('directories') ? await objects(scope, 'directories') : []
  return {
    directories: directories.map(({ id, name }) => ({ value: id, words: name })),
    'file services': services.map(({ id, name }) => ({ value: id, words: name })),
    'systems that serve files': systems
      .filter(({ fileUnits }) => fileUnits.length > 0)
      .map(({ id, name }) => ({ value: id, words: name })),
    systems: systems.map(({ id, name }) => ({ value: id, words: name })),
    'hosts with an agent': hosts.filter(hasAgent).map(({ id, name }) => ({ value: id, words: name })),
    'service classes': [{ value: '', words: 'none' }, ...classes.map(({ id, name }) => ({ value: id, words: name }))],
    routes: routes.map(({ id, name }) => ({ value: id, words: name })),
    'host groups or none': [
      { value: '', words: 'none yet' },
      ...groups.map(({ id, name }) => ({ value: id, words: name })),
    ],
    'pools or none': [
      { value: '', words: 'left to the class' },
      ...allPools.map(({ id, name }) => ({ value: id, words: name })),
    ],
    'host groups': groups.map(({ id, name }) => ({ value: id, words: name })),
    'names of applications': served.map(name => ({ value: name, words: name })),
    'names of host groups': groups.map(({ name }) => ({ value: name, words: name })),
    sites: places.map(({ id, name }) => ({ value: id, words: name })),
    'sites or none': [{ value: '', words: 'none' }, ...places.map(({ id, name }) => ({ value: id, words: name }))],
  }
}
