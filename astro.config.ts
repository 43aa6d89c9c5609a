import node from '@astrojs/node';
import react from '@astrojs/react';
import { defineConfig } from 'astro/config';
import { build } from 'esbuild';

/** The code of the threads that judge, beside the server. */
const judgeThread = {
  name: 'judge-thread',
  hooks: {
    'astro:build:done': async () => {
      await build({
        entryPoints: ['src/workers/judge.ts'],
        outfile: 'dist/judge.mjs',
        bundle: true,
        platform: 'node',
        format: 'esm',
        target: 'node20',
      });
    },
  },
};

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'standalone' }),
  integrations: [react(), judgeThread],
  devToolbar: { enabled: false },
  telemetry: false,
  experimental: { csp: true },
  // Every change is checked in the middleware, whatever its content type.
  security: { checkOrigin: false },
  vite: {
    ssr: { external: ['sequelize', 'pg', 'umzug', 'rate-limiter-flexible', 'piscina', 'lru-cache'] },
    build: { assetsInlineLimit: 0 },
  },
} as Parameters<typeof defineConfig>[0]);
