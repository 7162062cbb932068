/**
 * Noise of a differential against damping: a flow that is quiet is a flow that comes late. Simulated, with the seed shown, since
 * the root makes of noise something that no formula of a line says: near no flow it shows more than there is.
 */
import { requireBetween, requireNotNegative, requirePositive } from '../errors';
import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { share, type Transfer } from '../signal';

export interface NoisyFlow {
  /** True flow, per cent of full scale. */
  readonly flowPercent: number;
  /** Standard deviation of the differential, per cent of its span, and how long it is like itself, s. */
  readonly noisePercent: number;
  readonly noiseTimeS: number;
  /** Time constant before the root, where a transmitter damps. */
  readonly dampingS: number;
  readonly transfer: Transfer;
  readonly seed: number;
}

export interface DampedFlow {
  /** Of the flow that is shown, per cent of full scale. */
  readonly meanPercent: number;
  readonly deviationPercent: number;
  /** What the root makes of the noise on average: mean less true flow. */
  readonly biasPercent: number;
  /** How long a step of the differential takes to show to 63 % and to 99 % of it, s. */
  readonly to63S: number;
  readonly to99S: number;
  /** Some of what is shown, for a picture: one value a step. */
  readonly shown: readonly number[];
  readonly stepS: number;
}

const STEPS = 20_000;
const SETTLING_STEPS = 4000;
const DRAWN = 300;

/**
 * What is shown of a noisy flow behind its damping.
 * @throws CoreError `out-of-bounds`, `negative`, `not-positive`
 */
export function dampedFlow({
  flowPercent,
  noisePercent,
  noiseTimeS,
  dampingS,
  transfer,
  seed,
}: NoisyFlow): DampedFlow {
  requireBetween('The flow', flowPercent, [0, 150, '% of full scale'], 'flowPercent');
  requireNotNegative('The noise', noisePercent, 'noisePercent');
  requirePositive('The time of the noise', noiseTimeS, 'noiseTimeS');
  requireNotNegative('The damping', dampingS, 'dampingS');
  const random = xoroshiro128plus(seed);
  // The first draws of a small seed are alike.
  for (let draw = 0; draw < 8; draw += 1) uniformFloat64(random);
  const normal = (): number =>
    Math.sqrt(-2 * Math.log(1 - uniformFloat64(random))) * Math.cos(2 * Math.PI * uniformFloat64(random));
  // Fine against the quicker of the two, and long against the slower.
  const stepS = Math.max(Math.min(noiseTimeS, dampingS === 0 ? noiseTimeS : dampingS), noiseTimeS / 50) / 5;
  const keep = Math.exp(-stepS / noiseTimeS);
  const hold = dampingS === 0 ? 0 : Math.exp(-stepS / dampingS);
  const sigma = (noisePercent / 100) * Math.sqrt(1 - keep * keep);
  const t = (flowPercent / 100) ** 2;
  let [noise, damped, sum, squares] = [0, t, 0, 0];
  const shown: number[] = [];
  for (let step = 0; step < STEPS + SETTLING_STEPS; step += 1) {
    noise = keep * noise + sigma * normal();
    damped = hold * damped + (1 - hold) * (t + noise);
    if (step < SETTLING_STEPS) continue;
    const flow = share(transfer, damped) * 100;
    sum += flow;
    squares += flow * flow;
    if (shown.length < DRAWN) shown.push(flow);
  }
  const mean = sum / STEPS;
  return {
    meanPercent: mean,
    deviationPercent: Math.sqrt(Math.max(0, squares / STEPS - mean * mean)),
    biasPercent: mean - flowPercent,
    to63S: dampingS,
    to99S: dampingS * Math.log(100),
    shown,
    stepS,
  };
}
