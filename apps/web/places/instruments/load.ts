import { StoreError } from '@barys/store/db';
import { findInstrument, tagToday, type Instrument } from '@barys/store/registers';
import { redirect } from 'next/navigation';
import { database } from '@/server/database';
import { orNotFound } from '@/server/orNotFound';

export type Params = Promise<{ tag: string }>;

/**
 * The instrument that an address names.
 * @param below what stands behind its tag in the address
 */
export const loadInstrument = async (params: Params, below = ''): Promise<Instrument> => {
  const tag = decodeURIComponent((await params).tag);
  const db = database();
  return orNotFound(async () => {
    try {
      return await findInstrument(db, { tag });
    } catch (error) {
      if (!(error instanceof StoreError)) throw error;
      // Labels and records go on leading to an instrument that has another tag by now.
      const today = await tagToday(db, tag);
      if (today !== null) redirect(`/instruments/${encodeURIComponent(today)}${below}`);
      throw error;
    }
  });
};
