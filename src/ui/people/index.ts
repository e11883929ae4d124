export { PersonChoice } from './PersonChoice'
export { useSomebody } from './useSomebody'
