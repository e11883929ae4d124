import nextJest from 'next/jest.js'

const withNext = nextJest({ dir: './' })
const resolved = withNext({
  testEnvironment: 'node',
  testMatch: ['<rootDir>/src/**/*.test.ts', '<rootDir>/src/**/*.test.tsx', '<rootDir>/commands/**/*.test.ts'],
  moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1', '^next/navigation$': '<rootDir>/src/ui/testing/navigation.ts' },
  testTimeout: 240_000,
  globalSetup: '<rootDir>/commands/testing/globalSetup.ts',
  globalTeardown: '<rootDir>/commands/testing/globalTeardown.ts',
})

export default async () => ({
  ...(await resolved()),
  // These ship ES modules only; the list has to be set on the resolved config, as Next puts its own in front.
  transformIgnorePatterns: ['/node_modules/(?!(d3-[^/]+|internmap|react-hotkeys-hook)/)'],
})
