import { execFile } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { promisify } from 'node:util';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';

const root = new URL('../../', import.meta.url);
const text = (path: string) => readFileSync(new URL(path, root), 'utf8');
const packageSchema = z.object({
  dependencies: z.record(z.string(), z.string()),
  devDependencies: z.record(z.string(), z.string()),
});
const installedSchema = z.object({
  license: z.union([z.string(), z.object({ type: z.string() })]).optional(),
  licenses: z.array(z.object({ type: z.string() })).optional(),
});
const lockSchema = z.object({ packages: z.record(z.string(), z.object({ license: z.string().optional() })) });

/** Licences (SPDX names) under which anybody may use, change and pass on what is built with them. */
const free = new Set(
  'MIT ISC 0BSD BSD-2-Clause BSD-3-Clause Apache-2.0 BlueOak-1.0.0 CC0-1.0 Unlicense Zlib Python-2.0 PSF-2.0 OFL-1.1 CC-BY-4.0'.split(
    ' ',
  ),
);
/** Those that ask for more, each with why it does no harm here. */
const looked: Record<string, string> = {
  'axe-core': 'MPL-2.0: used as it is, in the tests alone',
  '@axe-core/playwright': 'MPL-2.0: used as it is, in the tests alone',
  '@img/':
    'LGPL-3.0: a library of its own that the page framework brings for pictures, which this app does not make',
};

const isFree = (licence: string): boolean =>
  licence
    .replace(/[()]/g, '')
    .split(' OR ')
    .some((choice) => choice.split(' AND ').every((one) => free.has(one)));

const nameOf = (path: string): string =>
  path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length);

/** As the lock says it, else as the package itself does. */
function licenceOf(path: string, locked: string | undefined): string | undefined {
  if (locked) return locked;
  if (!existsSync(new URL(`${path}/package.json`, root))) return undefined;
  const { license, licenses } = installedSchema.parse(JSON.parse(text(`${path}/package.json`)));
  const named = typeof license === 'string' ? license : (license?.type ?? licenses?.[0]?.type);
  return named ?? licenceOfText(path);
}

/** By the first words of the MIT licence, where a package brings the text alone. */
function licenceOfText(path: string): string | undefined {
  const file = ['LICENSE', 'LICENSE.md', 'license'].find((name) =>
    existsSync(new URL(`${path}/${name}`, root)),
  );
  return file && /Permission is hereby granted, free of charge/.test(text(`${path}/${file}`))
    ? 'MIT'
    : undefined;
}

describe('what the app is built with', () => {
  it('is free to use, package by package', () => {
    const { packages } = lockSchema.parse(JSON.parse(text('package-lock.json')));
    const others = Object.entries(packages).flatMap(([path, { license }]) => {
      const name = nameOf(path);
      const licence = path === '' ? 'MIT' : licenceOf(path, license);
      const isLookedAt = Object.keys(looked).some((prefix) => name.startsWith(prefix));
      return isLookedAt || (licence !== undefined && isFree(licence))
        ? []
        : [`${name}: ${licence ?? 'none named'}`];
    });
    expect(others).toEqual([]);
  });

  it('has its reason written down, each of them', () => {
    const { dependencies, devDependencies } = packageSchema.parse(JSON.parse(text('package.json')));
    const reasons = text('docs/dependencies.md');
    const unexplained = Object.keys({ ...dependencies, ...devDependencies }).filter(
      (name) => !reasons.includes(`\`${name}\``) && !name.startsWith('@types/'),
    );
    expect(unexplained).toEqual([]);
  });

  it('has no fault that the registry knows of and calls grave, where it answers', async (test) => {
    const { stdout } = await promisify(execFile)('npm', ['audit', '--omit=dev', '--json'], {
      cwd: root,
    }).catch((error: unknown) => z.object({ stdout: z.string() }).parse(error));
    const report = z
      .object({ metadata: z.object({ vulnerabilities: z.object({ high: z.int(), critical: z.int() }) }) })
      .safeParse(JSON.parse(stdout || '{}'));
    if (!report.success) return test.skip('the registry answers no audit here');
    expect(report.data.metadata.vulnerabilities).toMatchObject({ high: 0, critical: 0 });
  }, 60_000);
});
