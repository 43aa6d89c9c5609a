import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { v7 as newKey } from 'uuid';
import type { Job } from '../../src/core/job';
import type { Part } from '../../src/core/sensor/part';
import { programmingVerdict, sensorWrites, type SensorWrite } from '../../src/core/job/car-write';
import type { VisitView, YardLine } from '../../src/contract/views';
import { Client, openShop, type Shop } from '../support/shop';

let shop: Shop;
let ines: Client;
let boss: Client;
let job: string;
beforeAll(async () => {
  shop = await openShop();
  [ines, boss] = await Promise.all([Client.signIn(shop.address), Client.signIn(shop.address, 'manager')]);
  job = (await ines.get<YardLine[]>('/api/yard')).find(({ plate }) => plate === 'KUR 417')?.id ?? '';
});
afterAll(() => shop.close());

const lay = (...serials: string[]) => ines.post(`/api/practice/${job}`, { do: 'cradle', serials });
const asked = (more: object) => ({ key: newKey(), part: 'UNI-4M', wheel: 'RR', mode: 'new', ...more });
const program = (more: object) => ines.send('POST', `/api/jobs/${job}/program`, asked(more));
const lastOf = async (response: Response): Promise<SensorWrite> => {
  if (!response.ok) throw new Error(await response.text());
  const last = sensorWrites(((await response.json()) as VisitView).job).at(-1);
  if (!last) throw new Error('nothing was programmed');
  return last;
};
const problemOf = async (response: Response) =>
  ((await response.json()) as { error: { code: string; message: string } }).error;

describe('a universal sensor', () => {
  it('is programmed with the old ID, read back, and heard by the tool and by the car without a relearn', async () => {
    await lay('U4-1021');
    const key = newKey();
    const write = await lastOf(await program({ key, mode: 'clone', id: '4b11 e0f6' }));
    expect(programmingVerdict(write)).toBe('worked');
    expect(write).toMatchObject({
      asked: { id: '4B11E0F6', family: 'kestrel', frequencyMHz: 433.92 },
      readBack: { id: '4B11E0F6', family: 'kestrel', frequencyMHz: 433.92 },
      mode: 'clone',
      part: 'UNI-4M',
      wheel: 'RR',
      by: 'Ines',
    });
    expect((await lastOf(await program({ key, mode: 'clone', id: '4b11 e0f6' }))).key).toBe(key);
    const { sensors } = await ines.get<{ sensors: { serial: string; writesLeft: number }[] }>(
      '/api/practice/box',
    );
    expect(sensors.find(({ serial }) => serial === 'U4-1021')?.writesLeft).toBe(49);

    await ines.post(`/api/practice/${job}`, { do: 'fit', wheel: 'RR', serial: 'U4-1021' });
    const woken = await ines.post<VisitView>(`/api/jobs/${job}/wake`, {
      key: newKey(),
      wheel: 'RR',
      trigger: 'pulsed',
    });
    expect(woken.job.observations.at(-1)).toMatchObject({ replies: [{ id: '4B11E0F6', family: 'kestrel' }] });
    const driven = await ines.post<VisitView>(`/api/practice/${job}`, { do: 'drive', key: newKey() });
    const live = driven.job.observations.filter((seen) => seen.kind === 'live' && seen.wheel === 'RR').at(-1);
    expect(live).toMatchObject({ kPa: expect.any(Number) as number });
  });

  it('with a new ID gets one that nobody has, each time another', async () => {
    await lay('U4-1022');
    const first = await lastOf(await program({ wheel: 'LF' }));
    await lay('U4-1023');
    const second = await lastOf(await program({ wheel: 'RF' }));
    expect([first, second].map(programmingVerdict)).toEqual(['worked', 'worked']);
    expect(first.asked.id).toMatch(/^[1-9A-F][0-9A-F]{7}$/);
    expect(first.asked.id).not.toBe(second.asked.id);
  });

  it('whose answer is lost is known by its read-back; one that forgets is found out', async () => {
    await lay('U4-1100');
    const lost = await lastOf(await program({ wheel: 'LR', mode: 'typed', id: '90FFE0A1' }));
    expect(lost).toMatchObject({ answer: 'lost', readBack: { id: '90FFE0A1' } });
    await lay('U4-1101');
    const forgets = await lastOf(await program({ wheel: 'LR', mode: 'typed', id: '90FFE0A2' }));
    expect(forgets).toMatchObject({ answer: 'yes', readBack: { id: null } });
    expect(programmingVerdict(forgets)).toBe('failed');
  }, 30_000);

  it('programmed elsewhere is noted whatever its part, or without one: it is then taken to be what the car hears', async () => {
    // Undefined does not go over HTTP.
    const noPart = asked({
      part: undefined,
      wheel: 'LF',
      mode: 'typed',
      id: '90FFE0B1',
      readBack: '90FFE0B1',
    });
    for (const body of [noPart, { ...noPart, key: newKey(), part: 'A part of another house' }]) {
      const noted = await lastOf(await ines.send('POST', `/api/jobs/${job}/programmed`, body));
      expect(programmingVerdict(noted)).toBe('worked');
      expect(noted.asked).toMatchObject({ family: 'kestrel', frequencyMHz: 433.92 });
    }
    const other = asked({ wheel: 'LF', part: 'UNI-3R', mode: 'typed', id: '90FFE0B1' });
    expect((await ines.send('POST', `/api/jobs/${job}/programmed`, other)).status).toBe(409);
  });

  it('that was taken out before it was read back stays unknown, and another one in its place is not taken for it', async () => {
    await ines.post(`/api/jobs/${job}/programmed`, asked({ wheel: 'LR', mode: 'typed', id: '90FFE0A3' }));
    const view = await ines.get<VisitView>(`/api/jobs/${job}`);
    const write = sensorWrites(view.job).at(-1);
    expect(write && programmingVerdict(write)).toBe('unknown');
    const path = `/api/jobs/${job}/program/read-back`;
    const known = await lastOf(await ines.send('POST', path, { write: write?.key, typed: '90ff e0a3' }));
    expect(programmingVerdict(known)).toBe('worked');
    // Once it was read back it stands.
    const again = await lastOf(await ines.send('POST', path, { write: write?.key, typed: '90FFE0A4' }));
    expect(again.readBack?.id).toBe('90ff e0a3');
    expect((await ines.send('POST', path, { write: newKey() })).status).toBe(404);
  });
});

describe('what is refused, with a sentence', () => {
  it.each([
    ['nothing in the cradle', [], {}, 'cradle-empty'],
    ['two in the cradle', ['U4-1024', 'U4-1025'], {}, 'cradle-crowded'],
    ['a sensor of another family', ['U3-0330'], {}, 'wrong-part'],
    ['a part of another family', ['U4-1024'], { part: 'UNI-3R' }, 'wrong-part'],
    ['a part that has its own ID', ['U4-1024'], { part: 'COR-VE-1' }, 'wrong-part'],
    ['a part nobody has', ['U4-1024'], { part: 'X' }, 'not-in-catalogue'],
    ['one that takes no more programs', ['U4-0907'], {}, 'sensor-spent'],
    ['one whose battery is ending', ['U4-0911'], {}, 'sensor-spent'],
    ['the spare of a car without one', ['U4-1024'], { wheel: 'SP' }, 'no-such-wheel'],
    ['a clone of nothing', ['U4-1024'], { mode: 'clone' }, 'invalid-input'],
    ['an ID that is none', ['U4-1024'], { mode: 'typed', id: 'HELLO' }, 'invalid-input'],
  ])('%s', async (_, serials, more, code) => {
    await lay(...serials);
    const response = await program(more);
    const problem = await problemOf(response);
    expect(problem.code).toBe(code);
    expect(problem.message).toMatch(/[.]$/);
  });

  it('an ID the car holds at another wheel', async () => {
    await ines.post(`/api/jobs/${job}/read-car`, { key: newKey() });
    await lay('U4-1024');
    const problem = await problemOf(await program({ wheel: 'RR', mode: 'typed', id: '4b07c2d1' }));
    expect(problem).toMatchObject({ code: 'id-elsewhere' });
    expect(problem.message).toMatch(/4B07 C2D1.*LF/);
    const byHand = await ines.send(
      'POST',
      `/api/jobs/${job}/programmed`,
      asked({ mode: 'typed', id: '4B07C2D1' }),
    );
    expect(byHand.status).toBe(409);
  });

  it('none of it left a trace', async () => {
    const file = await ines.get<Job>(`/api/jobs/${job}/file`);
    expect(sensorWrites(file)).toHaveLength(8);
  });
});

describe('the catalogue', () => {
  it('is read by everybody, and taken in by the manager, by article number', async () => {
    const before = await ines.get<Part[]>('/api/parts');
    const [first] = before;
    if (!first) throw new Error('the demo has parts');
    const changed = { ...first, title: 'Another title', shelf: 'B2' };
    expect((await ines.send('POST', '/api/parts', [changed])).status).toBe(403);
    const after = await boss.post<Part[]>('/api/parts', [changed]);
    expect(after).toHaveLength(before.length);
    expect(after.find(({ name }) => name === first.name)).toMatchObject({
      title: 'Another title',
      shelf: 'B2',
    });
    const senseless = await boss.send('POST', '/api/parts', [{ ...first, formats: [] }]);
    expect([senseless.status, (await problemOf(senseless)).code]).toEqual([400, 'invalid-input']);
  });
});

describe('the service of a sensor', () => {
  /** The smallest thing that begins and ends as a JPEG does; with a camera's notes where asked. */
  const picture = (withNotes = false) => {
    const notes = withNotes ? [0xff, 0xe1, 0, 8, 0x45, 0x78, 0x69, 0x66, 0, 0] : [];
    const bytes = [0xff, 0xd8, ...notes, 0xff, 0xda, 0, 2, 0xff, 0xd9];
    return `data:image/jpeg;base64,${Buffer.from(bytes).toString('base64')}`;
  };
  const keep = (more: object) =>
    ines.send('POST', `/api/jobs/${job}/services`, {
      key: newKey(),
      wheel: 'RR',
      done: ['deflated'],
      ...more,
    });

  it('is kept once, with its picture apart, and goes along in the job file where it is asked for', async () => {
    const key = newKey();
    const body = {
      key,
      part: 'UNI-4M',
      kit: 'KIT-M1',
      torqueNm: { nut: 5 },
      printedId: '4B11E0F6',
      photo: picture(),
    };
    const [first] = await Promise.all([1, 2, 3].map(() => keep(body)));
    expect(first?.status).toBe(200);
    const view = await ines.get<VisitView>(`/api/jobs/${job}`);
    expect(view.job.sensorServices).toEqual([
      expect.objectContaining({ key, wheel: 'RR', by: 'Ines', hasPhoto: true, torqueNm: { nut: 5 } }),
    ]);
    expect(JSON.stringify(view)).not.toContain('base64');
    const photo = await ines.fetch(`/api/photos/${key}`);
    expect([photo.status, photo.headers.get('content-type')]).toEqual([200, 'image/jpeg']);
    expect(new Uint8Array(await photo.arrayBuffer()).slice(0, 2)).toEqual(Uint8Array.from([0xff, 0xd8]));
    expect((await ines.get<Job>(`/api/jobs/${job}/file`)).sensorServices?.[0]?.photo).toBeUndefined();
    const whole = await ines.get<Job>(`/api/jobs/${job}/file?photos`);
    expect(whole.sensorServices?.[0]?.photo).toBe(picture());
    expect((await fetch(`${shop.address}/api/photos/${key}`)).status).not.toBe(200);
    expect((await ines.fetch(`/api/photos/${newKey()}`)).status).toBe(404);
  });

  it.each([
    ['a picture that says where it was taken', { photo: picture(true) }],
    ['one that is none', { photo: `data:image/jpeg;base64,${Buffer.from('hello').toString('base64')}` }],
    ['a script in its place', { photo: 'data:text/html;base64,PHNjcmlwdD4=' }],
    ['one that is too large', { photo: `data:image/jpeg;base64,${'A'.repeat(430_000)}` }],
    ['a wheel that is none', { wheel: 'XX' }],
  ])('%s is refused', async (_, more) => {
    expect((await keep(more)).status).toBe(400);
  });
});
