import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { must } from '../../../../tests/support/must';
import { decodeText, judgeList, readList, suggestMapping, type Judgement } from '.';

const head = 'Customer,Phone,E-mail,Plate,VIN,Vehicle,Year';
const good = 'Ada Quill,+1 555 0100,ada@example.com,KUR 731,1M8GDM9AXKP042788,Tern Vela,2019';
const file = (...rows: string[]) => [head, ...rows].join('\n');
const bytes = (text: string) => new TextEncoder().encode(text);

function judged(text: string): Judgement {
  const list = must(readList(text));
  return judgeList(list, suggestMapping(list.header), 2026);
}
const refusal = (row: string) => judged(file(row)).refused[0]?.reason;
const problem = (text: string) => {
  const read = readList(text);
  return read.ok ? undefined : read.problem.message;
};

describe('a customer list', () => {
  it('is read row by row, with its vehicle', () => {
    expect(judged(file(good)).entries).toEqual([
      {
        row: 2,
        name: 'Ada Quill',
        phone: '+1 555 0100',
        email: 'ada@example.com',
        vehicle: { plate: 'KUR731', vin: '1M8GDM9AXKP042788', label: 'Tern Vela', modelYear: 2019 },
      },
    ]);
  });

  it('takes whatever a row says as that, whatever stands in it (against the library that reads it)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(fc.string({ maxLength: 12 }), { minLength: 7, maxLength: 7 }), { maxLength: 8 }),
        (rows) => {
          const read = readList(`${head}\n${Papa.unparse(rows)}`);
          if (!read.ok) return;
          const { entries, refused } = judgeList(read.value, suggestMapping(read.value.header), 2026);
          expect(entries.length + refused.length).toBe(read.value.rows.length);
          for (const { name } of entries)
            expect(rows.some((row) => row[0]?.normalize('NFC').includes(name.slice(0, 1)))).toBe(true);
        },
      ),
    );
  });

  describe('in another dress is the same', () => {
    const same = judged(file(good)).entries;
    /** Wherever in the file it stands. */
    const content = (entry: (typeof same)[number]) => ({ ...entry, row: 0 });
    const [names = '', ...rest] = file(good).split('\n');
    it.each([
      ['semicolons', file(good).replaceAll(',', ';')],
      ['tabs', file(good).replaceAll(',', '\t')],
      ['bars', file(good).replaceAll(',', '|')],
      ['Windows line ends', file(good).replaceAll('\n', '\r\n')],
      ['old line ends', file(good).replaceAll('\n', '\r')],
      ['a mark in front', `\ufeff${file(good)}`],
      ['every cell quoted', file(good).replace(/[^,\n]+/g, '"$&"')],
      ['blanks around', file(good).replaceAll(',', ' , ')],
      ['blanks that do not break', file(good).replace('Ada Quill', 'Ada\u00a0Quill')],
      ['marks nobody sees', file(good).replace('Ada', 'A\u200bda')],
      ['empty lines between', `${file(good).replaceAll('\n', '\n\n')}\n\n`],
      ['lines of separators alone', `${file(good)}\n,,,,,,\n`],
      ['header in capitals', [names.toUpperCase(), ...rest].join('\n')],
      ['header with underscores', [names.replace('E-mail', 'e_mail'), ...rest].join('\n')],
      ['the header once more below', [names, ...rest, names].join('\n')],
      ['a plate in small letters with hyphens', file(good.replace('KUR 731', 'kur-731'))],
      ['a VIN in groups', file(good.replace('1M8GDM9AXKP042788', '1m8gdm9a xkp-042788'))],
      ['a year with a point', file(good.replace('2019', '2019.0'))],
      ['a phone kept as text', file(good.replace('+1 555', "'+1 555"))],
      ['a null at the end', `${file(good)}\n\0`],
    ])('%s', (_, text) => {
      expect(judged(text).entries.map(content)).toEqual(same.map(content));
    });

    it('a line that names the separator', () => {
      expect(judged(`sep=;\n${file(good).replaceAll(',', ';')}`).entries).toEqual(same);
    });

    it.each([
      ['UTF-8', bytes(file(good))],
      ['UTF-8 with its mark', bytes(`\ufeff${file(good)}`)],
      ['UTF-16, little end first', Uint8Array.from(Buffer.from(`\ufeff${file(good)}`, 'utf16le'))],
      ['UTF-16, big end first', Uint8Array.from(Buffer.from(`\ufeff${file(good)}`, 'utf16le').swap16())],
    ])('%s', (_, file) => {
      expect(judged(must(decodeText(file))).entries).toEqual(same);
    });

    it('Western European, as older programs write it (windows-1252: ü is FC)', () => {
      const list = must(decodeText(Uint8Array.from(Buffer.from('Customer\nM\u00fcller\n', 'latin1'))));
      expect(judged(list).entries[0]?.name).toBe('Müller');
    });
  });

  it.each(['-', 'n/a', 'NULL', '#N/A', 'unknown', '?'])('takes %s for nothing', (nothing) => {
    expect(
      judged(file(`Ada,${nothing},${nothing},${nothing},${nothing},${nothing},${nothing}`)).entries[0],
    ).toMatchObject({
      phone: null,
      email: null,
      vehicle: null,
    });
  });

  it('has an accent in one piece, however it was written', () => {
    expect(judged(file('Jose\u0301 Ruiz,,,,,,')).entries[0]?.name).toBe('José Ruiz');
  });

  it('without a header has numbered columns, and nothing is guessed', () => {
    const list = must(readList('Ada,1\nBo,2'));
    expect(list.header).toEqual(['Column 1', 'Column 2']);
    expect(list.rows).toHaveLength(2);
    expect(suggestMapping(list.header)).toEqual({});
  });

  describe('with a row that is wrong says which, and why', () => {
    it.each([
      ['no customer', ',1234567,,KUR 1,,,', 'no customer'],
      ['a customer that is a number', '12345,,,,,,', 'Customer has no letter in it'],
      ['a customer that is an address', 'ada@example.com,,,,,,', 'Customer is an e-mail address'],
      ['a customer that is a page', '<b>Ada</b>,,,,,,', 'Customer holds what no name or number has'],
      ['a customer that is a script', 'Ada<script>,,,,,,', 'Customer holds what no name or number has'],
      ['a customer that is a formula', '=HYPERLINK(A1),,,,,,', 'Customer is a formula, not a text'],
      ['a phone that is a formula', 'Ada,@SUM(1+1),,,,,', 'Phone is a formula, not a text'],
      ['a name that lost its encoding', 'M\ufffdller,,,,,,', 'Customer holds what no name or number has'],
      [
        'a name that was read in the wrong one',
        'M\u00c3\u00bcller,,,,,,',
        'Customer holds what no name or number has',
      ],
      ['a control character', 'A\u0007da,,,,,,', 'Customer holds what no name or number has'],
      ['a null within', 'A\0da,,,,,,', 'Customer holds what no name or number has'],
      ['half of a pair', 'A\ud83dda,,,,,,', 'Customer holds what no name or number has'],
      ['a name without end', `${'A'.repeat(121)},,,,,,`, 'Customer is longer than 120 characters'],
      [
        'a phone a spreadsheet rounded',
        'Ada,4.91712E+11,,,,,',
        'Phone was rounded by a spreadsheet (4.9E+11): set the column to text there',
      ],
      ['a phone of words', 'Ada,call the office,,,,,', 'Phone is no number'],
      ['a phone of three digits', 'Ada,123,,,,,', 'Phone has too few or too many digits'],
      ['a phone of thirty digits', `Ada,${'1'.repeat(30)},,,,,`, 'Phone has too few or too many digits'],
      ['an e-mail without its at', 'Ada,,ada.example.com,,,,', 'E-mail is no address'],
      ['an e-mail with two', 'Ada,,a@b@c.com,,,,', 'E-mail is no address'],
      ['two e-mails in one cell', 'Ada,,a@example.com; b@example.com,,,,', 'E-mail is no address'],
      ['an e-mail without its domain', 'Ada,,ada@example,,,,', 'E-mail is no address'],
      ['a plate of one letter', 'Ada,,,K,,,', 'Plate has too few or too many letters and digits'],
      [
        'a plate that is a sentence',
        'Ada,,,the old one of her son,,,',
        'Plate has too few or too many letters and digits',
      ],
      ['a VIN too short', 'Ada,,,,1M8GDM9AXKP04278,,', 'VIN has 16 characters, not 17'],
      ['a VIN too long', 'Ada,,,,1M8GDM9AXKP0427881,,', 'VIN has 18 characters, not 17'],
      ['a VIN with O for 0', 'Ada,,,,1M8GDM9AXKPO42788,,', 'VIN holds “O”, which none has'],
      ['a VIN with I for 1', 'Ada,,,,IM8GDM9AXKP042788,,', 'VIN holds “I”, which none has'],
      ['a year of two digits', 'Ada,,,KUR 1,,,19', 'Model year has two digits: write four'],
      ['a year before cars', 'Ada,,,KUR 1,,,1492', 'Model year is none between 1950 and 2027'],
      ['a year to come', 'Ada,,,KUR 1,,,2031', 'Model year is none between 1950 and 2027'],
      ['a year that is a day', 'Ada,,,KUR 1,,,03/04/2019', 'Model year is none between 1950 and 2027'],
      ['a vehicle nobody could find', 'Ada,,,,,Tern Vela,', 'a vehicle without plate and VIN'],
      [
        'a separator within a text',
        'Quill, Ada,1234567,,KUR 1,,Tern,2019',
        'more cells than the header has: is a separator within a text?',
      ],
    ])('%s', (_, row, reason) => {
      expect(refusal(row)).toBe(reason);
      expect(judged(file(good, row)).entries).toHaveLength(1);
    });

    it('one that is there twice', () => {
      expect(judged(file(good, good)).refused).toEqual([{ row: 3, reason: 'the same as row 2' }]);
    });

    it('one vehicle of two customers', () => {
      expect(judged(file(good, 'Bo Lund,,,kur731,,,')).refused).toEqual([
        { row: 3, reason: 'row 2 has this vehicle already; leave one of them' },
      ]);
    });
  });

  describe('that is none says what it is', () => {
    it.each([
      ['nothing', '', 'There is nothing in this file.'],
      ['blank lines', '\n\n , \n', 'There is nothing in this file.'],
      ['a header alone', head, 'There is a header in this file, and no row below it.'],
      ['JSON', '[{"name":"Ada"}]', 'This is no list of rows'],
      ['a page', '<html><table>', 'This is no list of rows'],
      ['a quotation mark left open', `${head}\n"Ada,1,,,,,\nBo,,,,,,`, 'Row 2 has a quotation mark'],
      ['a quotation mark within', `${head}\n"Ada "the" Quill",,,,,,`, 'Row 2 has a quotation mark'],
      ['too many rows', `Customer\n${'Ada\n'.repeat(50_001)}`, 'more than 50000 rows'],
      ['too many columns', `Customer${',x'.repeat(100)}\nAda`, 'more than 100 columns'],
    ])('%s', (_, text, sentence) => {
      expect(problem(text)).toContain(sentence);
    });

    it.each([
      ['a workbook', [0x50, 0x4b, 3, 4, 0]],
      ['an old workbook', [0xd0, 0xcf, 0x11, 0xe0]],
      ['a PDF', [0x25, 0x50, 0x44, 0x46]],
      ['a picture', [0xff, 0xd8, 0xff, 0xe0]],
      ['bytes of no text', [65, 0, 1, 2, 0, 66]],
    ])('%s', (_, begins) => {
      const read = decodeText(Uint8Array.from(begins));
      expect(read.ok ? '' : read.problem.message).toContain('Save the list as CSV');
    });
  });
});
