import type { Way } from '@/core/estate'
import type { Teller } from '@/ports'
import { mail } from './mail'
import type { RouteAccess } from './RouteAccess'
import { syslog } from './syslog'
import { webhook } from './webhook'

export type { RouteAccess } from './RouteAccess'

/** A further way is a file beside these and a line here. */
const tellers: Readonly<Record<Way, (access: RouteAccess) => Teller>> = { webhook, mail, syslog }

/** The way by which a route is told. Nothing is sent until the first message. */
export const tellerFor = (way: Way, access: RouteAccess): Teller => tellers[way](access)
