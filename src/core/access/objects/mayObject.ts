export type ObjectOperation = 'read' | 'write' | 'delete'
export type ObjectPermission = 'read' | 'write'

export interface ObjectGrant {
  /** An identity, or `*` for everyone. */
  readonly grantee: string
  readonly permissions: readonly ObjectPermission[]
}

export interface Granted {
  readonly owner: string
  readonly grants: readonly ObjectGrant[]
}

export interface StoredObject {
  readonly owner: string
  /** Null where the bucket's grants count for it. */
  readonly grants: readonly ObjectGrant[] | null
  /** Until then nobody may alter or delete it (ISO 8601); null where it is not locked. */
  readonly retainUntil: string | null
  readonly legalHold: boolean
}

export interface ObjectRequest {
  /** Null for somebody who has not signed. */
  readonly identity: string | null
  readonly operation: ObjectOperation
  readonly time: string
}

export interface ObjectAnswer {
  readonly allowed: boolean
  readonly decidedBy: 'bucket-grant' | 'object-grant' | 'retention-lock'
}

const grants = ({ owner, grants }: Granted, identity: string | null, wanted: ObjectPermission): boolean =>
  (identity !== null && identity === owner) ||
  grants.some(({ grantee, permissions }) => (grantee === '*' || grantee === identity) && permissions.includes(wanted))

/**
 * Whether somebody may read, write or delete an object: the bucket's grants, the object's own, and its lock; the first that denies
 * decides, else the last that was asked. Roles give no right on data, and nobody passes a lock.
 */
export function mayObject(bucket: Granted, object: StoredObject | null, request: ObjectRequest): ObjectAnswer {
  const { identity, operation, time } = request
  const wanted = operation === 'read' ? 'read' : 'write'
  if (!grants(bucket, identity, wanted)) return { allowed: false, decidedBy: 'bucket-grant' }
  if (object === null) return { allowed: true, decidedBy: 'bucket-grant' }
  const isNarrowed = object.grants !== null
  if (isNarrowed && !grants({ owner: object.owner, grants: object.grants }, identity, wanted))
    return { allowed: false, decidedBy: 'object-grant' }
  if (operation === 'read') return { allowed: true, decidedBy: isNarrowed ? 'object-grant' : 'bucket-grant' }
  const isLocked =
    object.legalHold || (object.retainUntil !== null && Date.parse(time) < Date.parse(object.retainUntil))
  return { allowed: !isLocked, decidedBy: 'retention-lock' }
}
