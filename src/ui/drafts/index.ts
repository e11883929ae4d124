export { CreatePool } from './CreatePool'
export { PlanView } from './PlanView'
export { PoolChoice } from './PoolChoice'
export { ProvisionVolume } from './ProvisionVolume'
export { RegisterSystem } from './RegisterSystem'
export {
  BringBackVolume,
  ExpandVolume,
  MapVolume,
  RegisterHost,
  RemovePool,
  RemoveVolume,
  UnmapVolume,
} from './VolumeDrafts'
export { KeyedDraft } from './KeyedDraft'
export { ForgetMissing } from './ForgetMissing'
