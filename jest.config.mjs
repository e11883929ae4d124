import nextJest from 'next/jest.js'

const withNext = nextJest({ dir: './' })

/**
 * What is looked up again and again and never replaced. Test files run in a context of their own, in which each look-up of a global asks
 * an interceptor: handed in like this, what computes takes a third of the time. Nothing that a test may put another in place of stands
 * here (clock, timers, fetch).
 */
const lookedUpOften = [
  'Array ArrayBuffer BigInt Boolean DataView Error Function JSON Map Math Number Object Promise Proxy Reflect RegExp Set String',
  'BigInt64Array BigUint64Array Float32Array Float64Array Int16Array Int32Array Int8Array Uint16Array Uint32Array Uint8Array',
  'RangeError Symbol SyntaxError TypeError WeakMap WeakSet',
].flatMap(names => names.split(' '))
const resolved = withNext({
  testEnvironment: 'node',
  testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/src/**/*.test.tsx', '<rootDir>/commands/**/*.test.ts'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1', '^next/navigation$': '<rootDir>/src/ui/testing/navigation.ts' },
  sandboxInjectedGlobals: lookedUpOften,
  testTimeout: 240_000,
  globalSetup: '<rootDir>/commands/testing/globalSetup.ts',
  globalTeardown: '<rootDir>/commands/testing/globalTeardown.ts',
})

export default async () => {
  const { transform, ...config } = await resolved()
  return {
    ...config,
    transform: { 'node_modules/lucide-react/.*[.]js$': '<rootDir>/commands/testing/inBlock.mjs', ...transform },
    // All but the last ship ES modules only; the list has to be set on the resolved config, as Next puts its own in front.
    transformIgnorePatterns: ['/node_modules/(?!(d3-[^/]+|internmap|react-hotkeys-hook|lucide-react)/)'],
  }
}
