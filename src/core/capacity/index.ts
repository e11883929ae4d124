export {
  drawnDays,
  fanOn,
  horizonDays,
  limitRatio,
  outlookOf,
  type NoOutlook,
  type Outlook,
  type Reaches,
} from './outlook'
export { compositionOf, type SpaceKind, type WrittenBy } from './composition'
export { growthOver, reachesAfter, type Relief } from './ways'
export { asItIs, groupBytes, reliefOf, type Supposed } from './suppose'
