import type { NextConfig } from 'next';

const config: NextConfig = {
  distDir: process.env.YANTREL_DIST ?? '.next',
  reactStrictMode: true,
  // A part of the page whose figures did not change is not drawn again.
  reactCompiler: true,
  poweredByHeader: false,
  // A phone on the same network reads it too; the tests are on this machine, where packing only takes time.
  compress: process.env.YANTREL_DIST !== '.next-test',
  // Types are checked by "npm test"; a build need not do it again.
  typescript: { ignoreBuildErrors: true },
  serverExternalPackages: ['pg', 'pdfmake', 'piscina'],
  // What the code on a case opens: the rig at its signal. Answered before any page is drawn.
  redirects: () =>
    Promise.resolve([
      { source: '/rigs/:id((?!new$)[^/]+)', destination: '/rigs/:id/signal', permanent: false },
    ]),
  experimental: {
    // The same compiler in Rust, in the build itself: beside it, in Node.js, it took most of a build's time.
    turbopackRustReactCompiler: true,
    optimizePackageImports: ['@mantine/core', '@mantine/hooks', '@tabler/icons-react'],
  },
};

export default config;
