import { context } from './context'

/** What the database tells, for whoever streams it on. */
export const listening = () => context().listening
