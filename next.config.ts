import type { NextConfig } from 'next';

/** On every answer; pages have a policy of their own besides (src/proxy.ts). */
const EVERYWHERE = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  { key: 'X-Frame-Options', value: 'DENY' },
  { key: 'Referrer-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Resource-Policy', value: 'same-origin' },
  { key: 'Permissions-Policy', value: 'camera=(), microphone=(), geolocation=()' },
];

const policy = (value: string) => [{ key: 'Content-Security-Policy', value }];

const config: NextConfig = {
  serverExternalPackages: ['libsql'],
  poweredByHeader: false,
  devIndicators: false,
  // ./zg test checks all types once, the build does not again.
  typescript: { ignoreBuildErrors: true },
  async headers() {
    return [
      { source: '/:path*', headers: EVERYWHERE },
      { source: '/api/:path*', headers: policy("default-src 'none'; frame-ancestors 'none'") },
      // Worker files carry the policy that their threads run under: our own code and its WebAssembly.
      {
        source: '/_next/static/:path*',
        headers: policy(
          "default-src 'none'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'; frame-ancestors 'none'",
        ),
      },
    ];
  },
};

export default config;
