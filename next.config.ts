import type { NextConfig } from 'next';

const config: NextConfig = {
  distDir: process.env.YANTREL_DIST ?? '.next',
  reactStrictMode: true,
  poweredByHeader: false,
  // It is served to this machine: packing answers only takes time from others.
  compress: false,
  // Types are checked by "npm test"; a build need not do it again.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ['pg', 'pdfmake', 'piscina'],
  experimental: {
    optimizePackageImports: ['@mantine/core', '@mantine/hooks', '@tabler/icons-react'],
  },
};

export default config;
