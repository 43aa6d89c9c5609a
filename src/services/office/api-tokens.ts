import { randomBytes } from 'node:crypto';
import type { ApiToken } from '../../contract/doors';
import { unknownToken } from '../../contract/refusals';
import { success, type Result } from '../../core/result';
import { inTransaction } from '../../data/database';
import * as doors from '../../data/doors';
import { loadShop } from '../../data/shop';
import { notationHere } from '../notation';
import { hashToken, refuseUnless, type Person } from '../people';

/** Programs that read what the shop has; they change nothing. */

/** By its beginning a token is known for what it is, where it should not be. */
const mark = 'hcd_';

/** The token itself is told once, here. Problem: `not-allowed`. */
export function makeToken(
  asked: { key: string; name: string },
  who: Person,
): Promise<Result<{ token: string; tokens: ApiToken[] }>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'manage-shop');
    if (refusal) return refusal;
    const token = `${mark}${randomBytes(32).toString('base64url')}`;
    const before = await doors.findToken(tx, asked.key);
    // Asked for again, as after a lost answer: what was told is not known any more, so it is another.
    if (before) await before.update({ tokenHash: hashToken(token) }, { transaction: tx });
    else
      await doors.addToken(tx, {
        id: asked.key,
        tokenHash: hashToken(token),
        name: asked.name,
        madeBy: who.name,
      });
    return success({ token, tokens: (await doors.listTokens(tx)).map(tokenFrom) });
  });
}

/** Problem: `not-allowed`. */
export async function apiTokens(who: Person): Promise<Result<ApiToken[]>> {
  const refusal = refuseUnless(who, 'manage-shop');
  return refusal ?? success((await inTransaction(doors.listTokens)).map(tokenFrom));
}

/** From now on it opens nothing. Problems: `not-allowed`, `unknown-token`. */
export function endToken(id: string, who: Person): Promise<Result<ApiToken[]>> {
  return inTransaction(async (tx) => {
    const refusal = refuseUnless(who, 'manage-shop');
    if (refusal) return refusal;
    const row = await doors.findToken(tx, id);
    if (!row) return unknownToken();
    if (!row.endedAt) await row.update({ endedAt: new Date(), endedBy: who.name }, { transaction: tx });
    return success((await doors.listTokens(tx)).map(tokenFrom));
  });
}

/** Who reads with this token: what the counter sees, and no more. */
export async function readerOf(token: string): Promise<Person | undefined> {
  if (!token.startsWith(mark)) return undefined;
  return inTransaction(async (tx) => {
    const row = await doors.tokenInUse(tx, hashToken(token));
    if (!row) return undefined;
    const shop = await loadShop(tx);
    return {
      id: row.id,
      name: `program ${row.name}`,
      role: 'adviser',
      units: notationHere(shop),
      ownUnits: false,
      secondFactor: 'none',
    };
  });
}

const tokenFrom = ({ id, name, madeAt, madeBy, usedAt, endedAt, endedBy }: doors.ApiTokenRow): ApiToken => ({
  id,
  name,
  madeAt: madeAt.toISOString(),
  madeBy,
  usedAt: usedAt && usedAt.toISOString(),
  ended: endedAt && { at: endedAt.toISOString(), by: endedBy ?? '' },
});
