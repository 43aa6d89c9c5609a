import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';

const core = new URL('.', import.meta.url);
const entries = (folder: URL) => readdirSync(folder, { withFileTypes: true });
const rooms = entries(core).flatMap((entry) => (entry.isDirectory() ? [entry.name] : []));

describe('the core', () => {
  it('has a page that names its rooms', () => {
    const page = readFileSync(new URL('README.md', core), 'utf8');
    expect(rooms.filter((room) => !page.includes(`\`${room}\``))).toEqual([]);
  });

  it.each(rooms)('says of %s what is in it, every noun by name', (room) => {
    const folder = new URL(`${room}/`, core);
    const page = readFileSync(new URL('README.md', folder), 'utf8');
    const nouns = entries(folder).flatMap((entry) => {
      if (entry.isDirectory()) return [entry.name];
      return /^[a-z-]+\.ts$/.test(entry.name) ? [entry.name.slice(0, -'.ts'.length)] : [];
    });
    expect(nouns.filter((noun) => !page.includes(`\`${noun}\``))).toEqual([]);
  });
});

describe('how to add', () => {
  it('leads to files and folders that are there', () => {
    const root = new URL('../../', core);
    const page = readFileSync(new URL('docs/how-to-add.md', root), 'utf8');
    const paths = [...page.matchAll(/`((?:src|demo|docs|tests|bench)\/[\w./-]+)`/g)].map(
      ([, path = '']) => path,
    );
    expect(paths.length).toBeGreaterThan(30);
    expect(paths.filter((path) => !existsSync(new URL(path.replace(/NAME.*/, ''), root)))).toEqual([]);
  });
});
