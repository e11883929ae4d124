import type { NextConfig } from 'next'

const config: NextConfig = {
  // Sequelize and its neighbours look up optional drivers at run time, which a bundler cannot follow.
  serverExternalPackages: ['sequelize', 'umzug', 'graphile-worker', 'pg', '@node-rs/argon2'],
  poweredByHeader: false,
  // The front compresses, after it has remembered what it answers.
  compress: false,
  reactStrictMode: true,
  // Types are a check of their own (./wendrel test types): whoever starts it for the first time does not wait for them.
  typescript: { ignoreBuildErrors: true },
}

export default config
