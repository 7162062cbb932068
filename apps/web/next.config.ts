import type { NextConfig } from 'next';
import { fileURLToPath } from 'node:url';

const config: NextConfig = {
  reactStrictMode: true,
  poweredByHeader: false,
  transpilePackages: ['@barys/core', '@barys/store'],
  serverExternalPackages: ['pg', '@react-pdf/renderer'],
  turbopack: { root: fileURLToPath(new URL('../..', import.meta.url)) },
  // A certificate's file comes with its form.
  experimental: { serverActions: { bodySizeLimit: '11mb' } },
  // Types and lint are checked once, by `npm test`.
  typescript: { ignoreBuildErrors: true },
};

export default config;
