export { Strata } from './Strata'
