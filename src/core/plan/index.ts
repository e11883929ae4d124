export {
  isReady,
  type ClusterSketch,
  type Effect,
  type ObjectRead,
  type PlacementSketch,
  type Plan,
  type PlanCheck,
  type PlannedStep,
  type RungText,
  shownPlan,
  type ShownPlan,
  type Sketch,
} from './Plan'
export { isStale, planDifference, shownDifference } from './planDifference'
export { changeStates, canMove, type ChangeState } from './changeStates'
export { runSheet, type Lane, type JournalMark } from './runSheet'
