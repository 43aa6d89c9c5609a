import node from '@astrojs/node';
import react from '@astrojs/react';
import { defineConfig } from 'astro/config';
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { build, type BuildOptions } from 'esbuild';

/** A program that runs in Node beside the pages, in one file. */
const program = (name: string, entry: string, more: BuildOptions = {}) => ({
  name,
  hooks: {
    'astro:build:done': async () => {
      await build({
        entryPoints: [entry],
        outfile: `dist/${name}.mjs`,
        bundle: true,
        packages: 'external',
        platform: 'node',
        format: 'esm',
        target: 'node20',
        ...more,
      });
    },
  },
});

/** What every page starts with. */
const earlyHand = {
  name: 'early-hand',
  hooks: {
    'astro:build:done': async ({ dir }: { dir: URL }) => {
      await build({
        entryPoints: ['src/ui/early-hand.ts'],
        outfile: `${fileURLToPath(dir)}/early-hand.js`,
        bundle: true,
        minify: true,
        format: 'iife',
        target: 'es2022',
      });
    },
  },
};

/** The worker that keeps the app on a device, and the list of what it keeps. */
const serviceWorker = {
  name: 'service-worker',
  hooks: {
    'astro:build:done': async ({ dir }: { dir: URL }) => {
      const root = fileURLToPath(dir);
      const files = readdirSync(root, { recursive: true, withFileTypes: true })
        .filter((entry) => entry.isFile())
        .map((entry) => `${entry.parentPath}/${entry.name}`)
        .filter((file) => /\.(js|css|woff2|svg|webmanifest)$/.test(file) && !file.endsWith('/sw.js'));
      const appFiles = files.map((file) => ({
        url: `/${file.slice(root.length).replace(/^\/+/, '')}`,
        revision: createHash('sha256').update(readFileSync(file)).digest('hex').slice(0, 16),
      }));
      await build({
        entryPoints: ['src/workers/service-worker.ts'],
        outfile: `${root}/sw.js`,
        bundle: true,
        minify: true,
        format: 'iife',
        target: 'es2022',
        define: { appFiles: JSON.stringify(appFiles), 'process.env.NODE_ENV': '"production"' },
      });
    },
  },
};

export default defineConfig({
  output: 'server',
  adapter: node({ mode: 'middleware' }),
  // Nothing of a view waits on the server (what is fetched later is shown in the browser alone), so it is sent in one piece.
  integrations: [
    react({ experimentalDisableStreaming: true }),
    program('server', 'src/server/main.ts'),
    // The threads that judge are many: each reads one file and no packages.
    program('judge', 'src/workers/judge.ts', { packages: 'bundle' }),
    program('standins', 'src/standins/main.ts'),
    earlyHand,
    serviceWorker,
  ],
  devToolbar: { enabled: false },
  telemetry: false,
  experimental: {
    csp: {
      directives: [
        "default-src 'self'",
        "img-src 'self' data: blob:",
        "connect-src 'self'",
        "font-src 'self'",
        "worker-src 'self'",
        "manifest-src 'self'",
      ],
    },
  },
  // Pictures are sent as they were taken: what would make others of them at anybody's wish is not there.
  image: { endpoint: { route: '/_image', entrypoint: './src/pages/_no-pictures.ts' } },
  // Every change is checked in the middleware, whatever its content type.
  security: { checkOrigin: false },
  vite: {
    ssr: {
      external: ['sequelize', 'pg', 'umzug', 'rate-limiter-flexible', 'piscina', 'lru-cache', 'pdfkit'],
    },
    build: {
      assetsInlineLimit: 0,
      // Two sheets of 10 kB each on the way are all styles: the framework hashes each sheet of a page anew for every answer.
      cssCodeSplit: false,
      // The first view would carry the list of what every dialog is made of; dialogs are fetched while it is looked at.
      modulePreload: {
        resolveDependencies: () => [],
      },
    },
  },
} as Parameters<typeof defineConfig>[0]);
