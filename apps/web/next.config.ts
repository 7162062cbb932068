import type { NextConfig } from 'next';
import { fileURLToPath } from 'node:url';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  transpilePackages: ['@barys/core', '@barys/store'],
  serverExternalPackages: ['pg', '@react-pdf/renderer', 'piscina'],
  turbopack: { root: fileURLToPath(new URL('../..', import.meta.url)) },
  // Files come with their forms: certificates up to 10 MB, imports up to 64 MB.
  experimental: { serverActions: { bodySizeLimit: '65mb' }, proxyClientMaxBodySize: '65mb' },
  // Types and lint are checked once, by `npm test`.
  typescript: { ignoreBuildErrors: true },
};

export default config;
