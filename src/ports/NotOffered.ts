import { WendrelError } from '@/core/errors'
import type { ResourceName } from './resources'

const words: Readonly<Record<ResourceName, string>> = {
  volumes: 'volumes',
  pools: 'pools',
  spreadPools: 'pools spread over nodes',
  snapshots: 'snapshots',
  consistencyGroups: 'groups of volumes with snapshots of one instant',
  fileServices: 'file services',
  shares: 'shares of files',
  mirrors: 'mirrors on other systems',
  mappings: 'mappings of volumes to hosts',
  drives: 'drives',
  interfaces: 'interfaces of nodes',
  switchPorts: 'switches',
  nodes: 'nodes',
  clusters: 'clusters',
  tasks: 'tasks',
  metrics: 'history of what it measures',
}

/** The system has no such resource. */
export class NotOffered extends WendrelError {
  readonly code = 'system.not-offered'
  constructor(
    address: string,
    readonly resource: ResourceName,
    why: string,
  ) {
    super({
      what: `${address} has no ${words[resource]} that Wendrel could work on.`,
      why,
      remedy: "Choose another system, or use this one's own means.",
    })
  }
}
