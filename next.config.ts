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
  ],
  experimental: { serverMinification: false },
  poweredByHeader: false,
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
        { key: 'Cross-Origin-Embedder-Policy', value: 'require-corp' },
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'Referrer-Policy', value: 'same-origin' },
      ],
    },
  ],
};

export default config;
