// What Today shows of other pages stands by itself: the script of those pages is not loaded with it.
export { AgainstPromise } from './AgainstPromise'
export { FirstToFill } from './FirstToFill'
