import { addressOf, listBenches, trialOf } from '@barys/store/benches';
import type { Standard } from '@barys/store/registers';
import { database } from '@/server/database';
import type { SeenTrial } from './TrialSheet';

/** How a reference is reached, what came of its last trial, and the benches that there are. */
export async function loadAddress({ id }: Pick<Standard, 'id'>) {
  const db = database();
  const [address, trial, benches] = await Promise.all([
    addressOf(db, id),
    trialOf(db, id),
    listBenches(db, new Date()),
  ]);
  const bench = benches.find((one) => one.id === address?.bench.id);
  const seen: SeenTrial = { trial, bench: address?.bench.name ?? '', isThere: bench?.isThere ?? false };
  return { address, benches, seen };
}
