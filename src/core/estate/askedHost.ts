import type { Host } from './schemas'

/** A host whose agent can be asked what it sees. */
export type AskedHost = Host & { readonly agentAddress: string }

/** Whether a host can say what it sees: it has an agent, and something by which it logs in. */
export const canBeAsked = (host: Host): host is AskedHost => host.agentAddress !== null && host.initiators.length > 0

/** Whether a host has an agent at all: what it reaches over the network it can be asked whatever it logs in by. */
export const hasAgent = (host: Host): host is AskedHost => host.agentAddress !== null
