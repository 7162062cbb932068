import { findStandard, type Standard } from '@barys/store/registers';
import { database } from '@/server/database';
import { orNotFound } from '@/server/orNotFound';

export type Params = Promise<{ tag: string }>;

/** The reference that an address names. */
export const loadStandard = async (params: Params): Promise<Standard> => {
  const tag = decodeURIComponent((await params).tag);
  return orNotFound(() => findStandard(database(), tag));
};
