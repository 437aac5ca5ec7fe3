import type { NextConfig } from 'next';

const config: NextConfig = {
  serverExternalPackages: ['better-sqlite3', 'net-snmp'],
  poweredByHeader: false,
  devIndicators: false,
  // The types are a check of their own in `npm test`; a start need not wait for them.
  typescript: { ignoreBuildErrors: true },
};

export default config;
