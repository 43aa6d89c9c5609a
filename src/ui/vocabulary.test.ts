import { readdirSync, readFileSync } from 'node:fs';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

/** The words of the trade as `docs/vocabulary.md` has them, held against every text of the views. */

const page = readFileSync('docs/vocabulary.md', 'utf8');

/** The right column of every table: what is not said. */
const notSaid = page.split('\n').flatMap((line) => {
  const cells = line.split('|').map((cell) => cell.trim());
  const last = cells.at(-2);
  const isEntry = cells.length === 5 && last !== undefined && last !== 'not' && !/^-+$/.test(last);
  return isEntry ? last.split('; ').map((phrase) => phrase.trim()) : [];
});

/** A phrase as it is looked for: whole words, whatever the case; at the start of a text where it ends with …, alone where it is quoted. */
function pattern(phrase: string): RegExp {
  const alone = /^"(.*)"$/.exec(phrase)?.[1];
  if (alone !== undefined) return new RegExp(`^\\s*${alone}\\s*$`, 'i');
  const atStart = phrase.endsWith(' …');
  const words = phrase
    .replace(/ …$/, '')
    .replace(/[.*+?^${}()|[\]\\]/g, '\\$&')
    .replace(/\s+/g, '\\s+');
  const end = /\w$/.test(words) ? '\\b' : '';
  return new RegExp(`${atStart ? '^\\s*' : '\\b'}${words}${end}`, 'i');
}

const under = (folder: string, ending: RegExp): string[] =>
  readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((name) => ending.test(name) && !name.includes('.test.'))
    .map((name) => `${folder}/${name}`);

const files = [
  ...under('src/ui', /\.tsx?$/),
  ...under('src/pages', /\.astro$/),
  ...under('src/core', /\.ts$/),
  'src/contract/refusals.ts',
];

/** Everything in a file that a person may come to read: texts with a blank in them, and what stands in markup. */
function textsOf(file: string): string[] {
  const source = readFileSync(file, 'utf8');
  if (file.endsWith('.astro')) return markupOf(source);
  const texts: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isExportDeclaration(node)) return;
    // A reason of the model beside a figure is for its reader, not for a screen.
    if (ts.isCallExpression(node) && /^(judged|practice|contract|physics)$/.test(node.expression.getText()))
      return;
    if (ts.isJsxText(node) || ts.isStringLiteralLike(node)) texts.push(node.text);
    if (ts.isTemplateHead(node) || ts.isTemplateMiddleOrTemplateTail(node)) texts.push(node.text);
    ts.forEachChild(node, visit);
  };
  visit(ts.createSourceFile(file, source, ts.ScriptTarget.Latest, true));
  return texts.filter((text) => /\S\s+\S|…/.test(text.trim()) || /^[A-Z]/.test(text.trim()));
}

/** The texts between the tags of a page. */
const markupOf = (source: string): string[] =>
  [...source.replace(/^---[\s\S]*?\n---/, '').matchAll(/>([^<>{}]+)</g)].flatMap(([, text]) =>
    text?.trim() ? [text.trim()] : [],
  );

describe('the vocabulary', () => {
  it('forbids something, and can be broken', () => {
    expect(notSaid.length).toBeGreaterThan(40);
    expect(pattern('taken in').test('Version 2, taken in by Ada')).toBe(true);
    expect(pattern('Suppose …').test('Suppose a reading')).toBe(true);
    expect(pattern('Suppose …').test('You may suppose it')).toBe(false);
    expect(pattern('"not so"').test('not so')).toBe(true);
    expect(pattern('"not so"').test('not so hard that it tears')).toBe(false);
  });

  it.each(files)('is what %s speaks', (file) => {
    const texts = textsOf(file);
    const found = notSaid.flatMap((phrase) => {
      const text = texts.find((one) => pattern(phrase).test(one));
      return text === undefined ? [] : [`"${phrase}" in "${text.trim()}"`];
    });
    expect(found).toEqual([]);
  });
});
