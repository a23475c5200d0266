import type { NextConfig } from 'next';

const config: NextConfig = {
  outputFileTracingRoot: import.meta.dirname,
  // Native modules, and those that look for optional drivers, stay outside the bundle.
  serverExternalPackages: [
    'sequelize',
    'sqlite3',
    'umzug',
    'pino',
    'piscina',
    '@napi-rs/canvas',
    '@tus/server',
    '@tus/file-store',
    'execa',
  ],
  // The checks before the tests do it, once for everything.
  typescript: { ignoreBuildErrors: true },
  experimental: { serverMinification: false },
  poweredByHeader: false,
};

export default config;
