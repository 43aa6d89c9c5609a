import node from '@astrojs/node';
import react from '@astrojs/react';
import { defineConfig } from 'astro/config';

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'standalone' }),
  integrations: [react()],
  devToolbar: { enabled: false },
  telemetry: false,
  experimental: { csp: true },
  // Every change is checked in the middleware, whatever its content type.
  security: { checkOrigin: false },
  vite: {
    ssr: { external: ['sequelize', 'pg', 'umzug', 'rate-limiter-flexible'] },
    build: { assetsInlineLimit: 0 },
  },
} as Parameters<typeof defineConfig>[0]);
