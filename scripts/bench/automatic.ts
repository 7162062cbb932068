/** An automatic run of five points up and down, beside what its steps take to settle by themselves. */
import { Bench, leastTime, PLAN, STOPS } from '@barys/rig/running';
import { remark } from './table';

const RATES = [5, 10, 20, 50];

export async function benchAutomatic(): Promise<void> {
  const { waitS, holdS } = PLAN.settle;
  for (const ratePercentPerS of RATES) {
    const plan = { ...PLAN, approach: { ...PLAN.approach, ratePercentPerS } };
    const bench = new Bench([], plan);
    const begunS = bench.s;
    await bench.go(Infinity, 30_000, 0.1);
    const tookS = bench.s - begunS;
    remark(
      `An automatic run of ${STOPS.length} points at ${ratePercentPerS} % of span a second: ${tookS.toFixed(0)} s, ` +
        `${(tookS / (await leastTime(plan))).toFixed(2)} times what its steps take to settle by themselves, ` +
        `${(tookS / (STOPS.length * (waitS + holdS))).toFixed(2)} times the waits and holds alone; ` +
        `${bench.worstPast.toFixed(3)} % of span past a point at most.`,
    );
  }
}
