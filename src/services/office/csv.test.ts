import { describe, expect, it } from 'vitest';
import { toCsv } from './csv';

const table = (...rows: (string | number | null)[][]) =>
  toCsv({ name: 't', title: 't', columns: [{ label: 'a' }, { label: 'b, %', digits: 1 }], rows });

describe('a table as CSV', () => {
  it('is written as RFC 4180 has it (section 2, from memory), and marked as UTF-8', () => {
    expect(table(['say "low"', 12.34], ['two\nlines', null], ['Müller', -5])).toBe(
      '\ufeffa,"b, %"\r\n"say ""low""",12.3\r\n"two\nlines",\r\nMüller,-5.0\r\n',
    );
  });

  it.each(['=1+2', '+1', '@sum', '-cmd', '\t=1'])('keeps a spreadsheet from working %j out', (text) => {
    expect(table([text, 0])).toContain(`'${text}`);
  });
});
