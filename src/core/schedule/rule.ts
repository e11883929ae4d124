import * as library from 'rrule'

/**
 * Node reads the package as CommonJS, where all of it is its default; bundlers read its ES module, which has none.
 */
export const { RRule } = 'RRule' in library ? library : (library as { readonly default: typeof library }).default
