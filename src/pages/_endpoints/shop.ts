import { success } from '../../core/result';
import { cookieKept, deviceCookie, deviceDays, tokenOf } from '../_http';
import { shopFigures } from '../../services/confirmations';
import { devicesAsHeard, tryDevice } from '../../services/devices';
import { addGauge, recordCheck, register, setRetired } from '../../services/gauges';
import { addPerson, chooseUnits, listPeople, setActive } from '../../services/people';
import {
  endOneSession,
  listPairedDevices,
  pairDevice,
  resetPassphrase,
  sessionsOf,
  setSecret,
  unpairDevice,
} from '../../services/pins';
import { listProcedures, saveProcedures } from '../../services/procedures';
import {
  dropSecondFactor,
  newSecret,
  setSecondFactor,
  takeSecondFactorFrom,
} from '../../services/second-factor';
import { setShop, shopSettings } from '../../services/shop';
import { listProfiles, lookUp, saveProfiles } from '../../services/vehicles';
import { weather } from '../../services/weather';
import type { Works } from '../_http';

const yearSeconds = 365 * 86_400;

/** The shop: its people, gauges, devices, kinds of vehicle. */
export const shopWorks = {
  vehicle: async ({ query: { vin, plate } }) => {
    const known = vin || plate ? await lookUp({ ...(vin && { vin }), ...(plate && { plate }) }) : undefined;
    return success({ vehicle: known ?? null });
  },
  profiles: async () => success(await listProfiles()),
  saveProfiles: ({ body, who }) => saveProfiles(body, who),
  procedures: async () => success(await listProcedures()),
  saveProcedures: ({ body, who }) => saveProcedures(body, who),
  gauges: async () => success(await register()),
  addGauge: ({ body, who }) => addGauge(body, who),
  retireGauge: ({ id, body, who }) => setRetired(id, body.retired, who),
  recordCheck: ({ id, body, who }) => recordCheck(id, body, who),
  weather: () => weather(),
  devices: () => Promise.resolve(success(devicesAsHeard())),
  tryDevice: async ({ body, who }) => success(await tryDevice(body.kind, who.name)),
  figures: async () => success(await shopFigures()),
  shop: async () => success(await shopSettings()),
  setShop: ({ body, who }) => setShop(body, who),
  people: async () => success(await listPeople()),
  addPerson: async ({ body }) => {
    const added = await addPerson(body);
    return added.ok ? success({ id: added.value.id }) : added;
  },
  setActive: ({ id, body, who }) => setActive(who, id, body.active),
  me: async ({ body: { units, theme }, who, context: { cookies } }) => {
    if (units !== undefined) await chooseUnits(who, units);
    if (theme === 'system') cookies.delete('theme', { path: '/' });
    else if (theme) cookies.set('theme', theme, { path: '/', sameSite: 'strict', maxAge: yearSeconds });
    return success({ ok: true as const });
  },
  setSecret: ({ body, who, context }) => {
    const { passphrase, next, pin } = body;
    return setSecret(
      who,
      { passphrase, ...(next !== undefined && { next }), ...(pin !== undefined && { pin }) },
      tokenOf(context),
    );
  },
  newSecondFactor: ({ body, who }) => newSecret(who, body.passphrase),
  setSecondFactor: ({ body, who, context }) => setSecondFactor(who, body, tokenOf(context)),
  dropSecondFactor: ({ body, who }) => dropSecondFactor(who, body.passphrase),
  takeSecondFactor: ({ id, who }) => takeSecondFactorFrom(who, id),
  sessions: async ({ who, context }) => success(await sessionsOf(who, tokenOf(context))),
  endSession: ({ body, who }) => endOneSession(who, body.session),
  resetPassphrase: ({ id, body }) => resetPassphrase(id, body.passphrase),
  pairedDevices: async () => success(await listPairedDevices()),
  pairDevice: async ({ body, who, context: { cookies } }) => {
    const { token, devices } = await pairDevice(body.name, who);
    cookies.set(deviceCookie, token, cookieKept(deviceDays * 86_400));
    return success(devices);
  },
  unpairDevice: ({ body }) => unpairDevice(body.device),
} satisfies Partial<Works>;
