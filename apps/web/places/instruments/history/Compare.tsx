import type { KeptRun, Visit } from '@barys/store/results';
import { CompareSheet } from './CompareSheet';

/** Two runs in one corridor: those asked for, or the last two as found. */
export function Compare({
  visits,
  first,
  second,
}: {
  visits: readonly Visit[];
  first?: string | undefined;
  second?: string | undefined;
}) {
  const runs = visits
    .flatMap(({ found, left }) => [found, left])
    .filter((run): run is KeptRun => run !== null);
  const newest = [...runs].reverse();
  const found = newest.filter(({ kind }) => kind === 'as-found');
  const pick = (id: string | undefined, usual: KeptRun | undefined) =>
    runs.find((run) => String(run.id) === id) ?? usual;
  const [one, other] = [pick(first, found[1] ?? newest[1]), pick(second, found[0] ?? newest[0])];
  if (one === undefined || other === undefined) return null;
  return <CompareSheet runs={newest} first={one} second={other} />;
}
