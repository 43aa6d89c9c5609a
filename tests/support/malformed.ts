import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { uniformInt } from 'pure-rand/distribution/uniformInt';

/**
 * Requests as a hostile or a broken program makes them, from the published description of the API: documents of the right
 * shape in which here and there something stands that cannot be.
 */
type Schema = Record<string, unknown>;

/** What no field wants, and some program sends. */
const nasty: readonly unknown[] = [
  '\u0000',
  'a\u0000b',
  '\ud800',
  '\udfff\ud800',
  '\u0007\u001b[2J',
  '\u202e\u2066',
  '0000-00-00T00:00:00Z',
  '0000-01-01T00:00:00Z',
  '-000001-01-01T00:00:00Z',
  '+275760-09-13T00:00:00.001Z',
  '9999-12-31T23:59:59+14:00',
  '2026-02-30T00:00:00Z',
  'javascript:alert(1)',
  '//elsewhere.example/x',
  '00000000-0000-0000-0000-000000000000',
  'not-a-uuid',
  'é'.repeat(5000),
  'x'.repeat(100_000),
  '__proto__',
  '',
  ' ',
  null,
  true,
  -1,
  -0,
  0.1,
  1e308,
  -1e308,
  1e-320,
  2 ** 53,
  [],
  {},
  [[[[[]]]]],
  { toString: 'x', constructor: null },
  [null],
];

export function malformedBy(document: { components?: { schemas?: Record<string, Schema> } }, seed: number) {
  const random = xoroshiro128plus(seed);
  const below = (n: number): number => uniformInt(random, 0, n - 1);
  const pick = <Item>(items: readonly Item[]): Item => items[below(items.length)] as Item;
  const chance = (one: number): boolean => below(one) === 0;

  /** A document of a schema; at each place something else with one chance in `oddOneIn`. */
  function make(schema: unknown, oddOneIn: number, depth = 0): unknown {
    if (chance(oddOneIn)) return pick(nasty);
    if (typeof schema !== 'object' || schema === null || depth > 12) return pick(nasty);
    const { $ref, anyOf, oneOf, allOf, type, ...rest } = schema as Schema;
    if (typeof $ref === 'string')
      return make(document.components?.schemas?.[$ref.split('/').at(-1) ?? ''], oddOneIn, depth + 1);
    if ('const' in rest) return rest.const;
    if (Array.isArray(rest.enum)) return pick(rest.enum as unknown[]);
    const ways = anyOf ?? oneOf;
    if (Array.isArray(ways)) return make(pick(ways as unknown[]), oddOneIn, depth + 1);
    if (Array.isArray(allOf))
      return Object.assign({}, ...allOf.map((part: unknown) => make(part, oddOneIn, depth + 1))) as unknown;
    switch (Array.isArray(type) ? pick(type as unknown[]) : type) {
      case 'string':
        return text(rest);
      case 'integer':
        return number(rest, true);
      case 'number':
        return number(rest, false);
      case 'boolean':
        return chance(2);
      case 'null':
        return null;
      case 'array':
        return Array.from({ length: below(4) }, () => make(rest.items ?? {}, oddOneIn, depth + 1));
      default:
        return object(rest, oddOneIn, depth);
    }
  }

  function object(schema: Schema, oddOneIn: number, depth: number): unknown {
    const properties = (schema.properties ?? {}) as Record<string, unknown>;
    const required = new Set((schema.required ?? []) as string[]);
    const made: Record<string, unknown> = {};
    for (const [name, of] of Object.entries(properties)) {
      if (required.has(name) ? chance(oddOneIn * 3) : chance(2)) continue;
      made[name] = make(of, oddOneIn, depth + 1);
    }
    if (chance(oddOneIn)) made[pick(['\u0000', '__proto__x', 'é', 'key'])] = pick(nasty);
    return made;
  }

  function text({ format, pattern, minLength }: Schema): string {
    if (format === 'uuid') return uuid();
    if (format === 'date-time') return pick(['2026-01-02T03:04:05Z', '2025-12-31T23:59:59.999+05:30']);
    if (format === 'date') return '2026-01-02';
    if (typeof pattern === 'string' && pattern.includes('data:')) return 'data:image/jpeg;base64,/9j/';
    return pick(['LF', 'x', 'Corriente Vela', '4B07C2D1', '215/55R17', 'ok']).padEnd(
      Number(minLength ?? 0),
      'x',
    );
  }

  function number({ minimum, maximum }: Schema, whole: boolean): number {
    const [least, most] = [Number(minimum ?? -1000), Number(maximum ?? 1000)];
    const at = least + ((most - least) * below(1001)) / 1000;
    return chance(8) ? pick([least - 1, most + 1, least, most]) : whole ? Math.round(at) : at;
  }

  const uuid = (): string =>
    `0190a000-0000-7000-8000-${below(2 ** 24)
      .toString(16)
      .padStart(12, '0')}`;

  return { make, pick, chance, uuid, nasty };
}
