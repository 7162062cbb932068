import type { NextConfig } from 'next';
import { fileURLToPath } from 'node:url';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  transpilePackages: ['@barys/core', '@barys/store'],
  serverExternalPackages: ['pg', '@react-pdf/renderer', 'piscina'],
  turbopack: { root: fileURLToPath(new URL('../..', import.meta.url)) },
  experimental: {
    // Files come with their forms: certificates up to 10 MB, imports up to 64 MB.
    serverActions: { bodySizeLimit: '65mb' },
    proxyClientMaxBodySize: '65mb',
    // A quarter of the first build, for maps that nothing reads and a cache that spares the next build a tenth.
    turbopackSourceMaps: false,
    turbopackInputSourceMaps: false,
    turbopackFileSystemCacheForBuild: false,
  },
  // Types and lint are checked once, by `npm test`.
  typescript: { ignoreBuildErrors: true },
};

export default config;
