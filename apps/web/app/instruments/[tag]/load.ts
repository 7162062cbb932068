import { findInstrument, type Instrument } from '@barys/store';
import { database } from '@/server/database';
import { orNotFound } from '@/server/orNotFound';

export type Params = Promise<{ tag: string }>;

/** The instrument that an address names. */
export const loadInstrument = async (params: Params): Promise<Instrument> => {
  const tag = decodeURIComponent((await params).tag);
  return orNotFound(() => findInstrument(database(), { tag }));
};
