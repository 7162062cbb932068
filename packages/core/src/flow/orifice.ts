/**
 * Orifice plates after ISO 5167-1:2003 and -2:2003: discharge coefficient of Reader-Harris and Gallagher (5167-2, equation 4),
 * expansibility (equation 5), pressure loss (equation 7), limits of use (5.3.1) and uncertainties (5.3.3), and the mass flow
 * (5167-1, equation 1). From memory: the standard was not at hand. Lengths in metres, absolute pressures in pascals.
 */
import { CoreError, requireAtLeast, requirePositive } from '../errors';

export const TAPS = ['corner', 'flange', 'D and D/2'] as const;
export type Taps = (typeof TAPS)[number];

export interface Plate {
  /** Inside diameters of pipe and bore, as they are at the temperature of the fluid, m. */
  readonly pipeM: number;
  readonly boreM: number;
  readonly taps: Taps;
}

/** The fluid upstream of the plate. */
export interface Fluid {
  /** Absolute, Pa. */
  readonly pressurePa: number;
  readonly densityKgPerM3: number;
  /** Dynamic, Pa s. */
  readonly viscosityPaS: number;
  /** Isentropic exponent of a gas; null of a liquid, which does not expand. */
  readonly isentropicExponent: number | null;
}

const INCH_M = 0.0254;
/** Below this pipe diameter the coefficient has one more term: 2.8 inches. */
const SMALL_PIPE_M = 2.8 * INCH_M;

/** L1 and L2', the distances of the taps over the pipe diameter. */
function distancesOf(taps: Taps, pipeM: number): readonly [upstream: number, downstream: number] {
  switch (taps) {
    case 'corner':
      return [0, 0];
    case 'flange':
      return [INCH_M / pipeM, INCH_M / pipeM];
    case 'D and D/2':
      return [1, 0.47];
  }
}

export const betaOf = ({ pipeM, boreM }: Pick<Plate, 'pipeM' | 'boreM'>): number => boreM / pipeM;

function checkPlate({ pipeM, boreM }: Plate): void {
  requirePositive('The diameter of the pipe', pipeM, 'pipeM');
  requirePositive('The diameter of the bore', boreM, 'boreM');
  if (boreM >= pipeM)
    throw new CoreError(
      { code: 'undefined-result', name: 'The flow', why: 'the bore is as wide as the pipe, or wider' },
      'boreM',
    );
}

function checkFluid({ pressurePa, densityKgPerM3, viscosityPaS, isentropicExponent }: Fluid): void {
  requirePositive('The absolute pressure upstream', pressurePa, 'pressurePa');
  requirePositive('The density', densityKgPerM3, 'densityKgPerM3');
  requirePositive('The viscosity', viscosityPaS, 'viscosityPaS');
  if (isentropicExponent !== null)
    requireAtLeast('The isentropic exponent', isentropicExponent, [1, ''], 'isentropicExponent');
}

/**
 * Discharge coefficient at a Reynolds number of the pipe.
 * @throws CoreError `not-positive`, `undefined-result`
 */
export function dischargeCoefficient(plate: Plate, reynolds: number): number {
  checkPlate(plate);
  requirePositive('The Reynolds number', reynolds, 'reynolds');
  const beta = betaOf(plate);
  const [l1, l2] = distancesOf(plate.taps, plate.pipeM);
  const a = ((19_000 * beta) / reynolds) ** 0.8;
  const m2 = (2 * l2) / (1 - beta);
  const million = 1e6 / reynolds;
  const small = plate.pipeM < SMALL_PIPE_M ? 0.011 * (0.75 - beta) * (2.8 - plate.pipeM / INCH_M) : 0;
  return (
    0.5961 +
    0.0261 * beta ** 2 -
    0.216 * beta ** 8 +
    0.000521 * (beta * million) ** 0.7 +
    (0.0188 + 0.0063 * a) * beta ** 3.5 * million ** 0.3 +
    (0.043 + 0.08 * Math.exp(-10 * l1) - 0.123 * Math.exp(-7 * l1)) *
      (1 - 0.11 * a) *
      (beta ** 4 / (1 - beta ** 4)) -
    0.031 * (m2 - 0.8 * m2 ** 1.1) * beta ** 1.3 +
    small
  );
}

/**
 * Expansibility: 1 of a liquid.
 * @throws CoreError `undefined-result` where the differential is as large as the pressure upstream
 */
export function expansibility(
  plate: Pick<Plate, 'pipeM' | 'boreM'>,
  { pressurePa, isentropicExponent }: Fluid,
  differentialPa: number,
): number {
  if (isentropicExponent === null) return 1;
  if (differentialPa >= pressurePa)
    throw new CoreError(
      {
        code: 'undefined-result',
        name: 'The expansion of the gas',
        why: 'the differential is as large as the absolute pressure upstream',
      },
      'differentialPa',
    );
  const beta = betaOf(plate);
  const ratio = (pressurePa - differentialPa) / pressurePa;
  return 1 - (0.351 + 0.256 * beta ** 4 + 0.93 * beta ** 8) * (1 - ratio ** (1 / isentropicExponent));
}

export const reynoldsOf = (
  { pipeM }: Pick<Plate, 'pipeM'>,
  { viscosityPaS }: Fluid,
  massFlow: number,
): number => (4 * massFlow) / (Math.PI * pipeM * viscosityPaS);

/** What flows through a plate at a differential, with what it is made of. */
export interface OrificeFlow {
  readonly beta: number;
  readonly coefficient: number;
  readonly expansibility: number;
  /** Of the pipe. */
  readonly reynolds: number;
  /** kg/s, and m³/s as it is upstream. */
  readonly massFlow: number;
  readonly volumeFlow: number;
  readonly differentialPa: number;
  /** What stays lost behind the plate, Pa. */
  readonly lossPa: number;
}

const MOST_ROUNDS = 100;
const SAME = 1e-13;

/** The fixed point of a function that changes little with its argument. */
function settled(first: number, next: (value: number) => number): number {
  let value = first;
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const better = next(value);
    if (Math.abs(better - value) <= SAME * Math.abs(better)) return better;
    value = better;
  }
  return value;
}

/** Flow for a coefficient: C eps pi/4 d² sqrt(2 dp rho) / sqrt(1 - beta⁴). */
const massFlowOf = (
  { boreM, pipeM }: Plate,
  { densityKgPerM3 }: Fluid,
  differentialPa: number,
  coefficientTimesExpansion: number,
): number =>
  (coefficientTimesExpansion * (Math.PI / 4) * boreM ** 2 * Math.sqrt(2 * differentialPa * densityKgPerM3)) /
  Math.sqrt(1 - betaOf({ boreM, pipeM }) ** 4);

function flowOf(plate: Plate, fluid: Fluid, differentialPa: number, massFlow: number): OrificeFlow {
  const beta = betaOf(plate);
  const reynolds = reynoldsOf(plate, fluid, massFlow);
  const coefficient = dischargeCoefficient(plate, reynolds);
  const rest = Math.sqrt(1 - beta ** 4 * (1 - coefficient ** 2));
  const throat = coefficient * beta ** 2;
  return {
    beta,
    coefficient,
    expansibility: expansibility(plate, fluid, differentialPa),
    reynolds,
    massFlow,
    volumeFlow: massFlow / fluid.densityKgPerM3,
    differentialPa,
    lossPa: ((rest - throat) / (rest + throat)) * differentialPa,
  };
}

/**
 * Flow from the differential; the coefficient depends on the flow, so that it is found in rounds.
 * @throws CoreError `not-positive`, `too-small`, `undefined-result`
 */
export function orificeFlow(plate: Plate, fluid: Fluid, differentialPa: number): OrificeFlow {
  checkPlate(plate);
  checkFluid(fluid);
  requirePositive('The differential', differentialPa, 'differentialPa');
  const expansion = expansibility(plate, fluid, differentialPa);
  const flowFor = (coefficient: number) => massFlowOf(plate, fluid, differentialPa, coefficient * expansion);
  const massFlow = settled(flowFor(0.6), (flow) =>
    flowFor(dischargeCoefficient(plate, reynoldsOf(plate, fluid, flow))),
  );
  return flowOf(plate, fluid, differentialPa, massFlow);
}

/**
 * Differential from the flow.
 * @param massFlow kg/s
 * @throws CoreError `not-positive`, `too-small`; `undefined-result` where a gas cannot flow so fast through this bore
 */
export function orificeDifferential(plate: Plate, fluid: Fluid, massFlow: number): OrificeFlow {
  checkPlate(plate);
  checkFluid(fluid);
  requirePositive('The mass flow', massFlow, 'massFlow');
  const coefficient = dischargeCoefficient(plate, reynoldsOf(plate, fluid, massFlow));
  const one = massFlowOf(plate, fluid, 1, coefficient);
  const differentialPa = settled((massFlow / one) ** 2, (differential) => {
    if (fluid.isentropicExponent !== null && differential >= fluid.pressurePa) throw tooFast();
    return (massFlow / (one * expansibility(plate, fluid, differential))) ** 2;
  });
  return flowOf(plate, fluid, differentialPa, massFlow);
}

const tooFast = (): CoreError =>
  new CoreError(
    {
      code: 'undefined-result',
      name: 'The differential',
      why: 'so much gas does not pass this bore: it would need more than the pressure upstream',
    },
    'massFlow',
  );

/** Beyond these no plate is bored. */
const [LEAST_BETA, GREATEST_BETA] = [0.02, 0.95];

/**
 * Bore from flow and differential, by halving: more bore is more flow.
 * @param massFlow kg/s
 * @throws CoreError `not-positive`, `too-small`; `undefined-result` where no bore of the pipe gives it
 */
export function orificeBore(
  { pipeM, taps }: Omit<Plate, 'boreM'>,
  fluid: Fluid,
  massFlow: number,
  differentialPa: number,
): OrificeFlow & { readonly boreM: number } {
  requirePositive('The diameter of the pipe', pipeM, 'pipeM');
  requirePositive('The mass flow', massFlow, 'massFlow');
  const flowThrough = (beta: number) =>
    orificeFlow({ pipeM, taps, boreM: beta * pipeM }, fluid, differentialPa);
  if (flowThrough(LEAST_BETA).massFlow > massFlow || flowThrough(GREATEST_BETA).massFlow < massFlow)
    throw new CoreError(
      {
        code: 'undefined-result',
        name: 'The bore',
        why: `no bore of ${LEAST_BETA} to ${GREATEST_BETA} of the pipe gives this flow at this differential`,
      },
      'massFlow',
    );
  let [low, high] = [LEAST_BETA, GREATEST_BETA];
  // Each round halves what is left: fifty reach the last digit.
  for (let round = 0; round < 60; round += 1) {
    const middle = (low + high) / 2;
    if (flowThrough(middle).massFlow < massFlow) low = middle;
    else high = middle;
  }
  const beta = (low + high) / 2;
  return { ...flowThrough(beta), boreM: beta * pipeM };
}

/** A limit of use that is not kept, in words. */
export interface BrokenLimit {
  readonly name: 'bore' | 'pipe' | 'beta' | 'reynolds' | 'expansion';
  readonly words: string;
}

/** Least Reynolds number of the pipe that the standard allows for these taps. */
export function leastReynolds({ pipeM, boreM, taps }: Plate): number {
  const beta = betaOf({ pipeM, boreM });
  if (taps === 'flange') return Math.max(5000, 170 * beta ** 2 * pipeM * 1000);
  return beta <= 0.56 ? 5000 : 16_000 * beta ** 2;
}

const mm = (metres: number): string => `${Number((metres * 1000).toPrecision(4))} mm`;

/** Which limits of use of ISO 5167-2, 5.3.1 a flow does not keep; none where it keeps them all. */
export function brokenLimits(plate: Plate, fluid: Fluid, flow: OrificeFlow): readonly BrokenLimit[] {
  const broken: BrokenLimit[] = [];
  const { pipeM, boreM } = plate;
  const least = leastReynolds(plate);
  const isWithin = (value: number, low: number, high: number) =>
    value >= low * (1 - 1e-12) && value <= high * (1 + 1e-12);
  if (!isWithin(boreM, 0.0125, Infinity))
    broken.push({ name: 'bore', words: `The bore is ${mm(boreM)}; the standard begins at 12.5 mm.` });
  if (!isWithin(pipeM, 0.05, 1))
    broken.push({ name: 'pipe', words: `The pipe is ${mm(pipeM)}; the standard covers 50 to 1000 mm.` });
  if (!isWithin(flow.beta, 0.1, 0.75))
    broken.push({
      name: 'beta',
      words: `The bore is ${flow.beta.toPrecision(3)} of the pipe; the standard covers 0.1 to 0.75.`,
    });
  if (!isWithin(flow.reynolds, least, Infinity))
    broken.push({
      name: 'reynolds',
      words: `The Reynolds number is ${Number(flow.reynolds.toPrecision(3))}; for these taps it must be at least ${Number(least.toPrecision(3))}.`,
    });
  const ratio = (fluid.pressurePa - flow.differentialPa) / fluid.pressurePa;
  if (fluid.isentropicExponent !== null && !isWithin(ratio, 0.75, Infinity))
    broken.push({
      name: 'expansion',
      words: `The gas expands to ${ratio.toPrecision(3)} of its pressure; the standard ends at 0.75.`,
    });
  return broken;
}

/** Relative, per cent; what they are of is for the caller to know. */
export interface OrificeUncertainties {
  readonly coefficient: number;
  readonly expansibility: number;
  readonly pipe: number;
  readonly bore: number;
  readonly differential: number;
  readonly density: number;
}

/** Expanded uncertainty of the discharge coefficient by ISO 5167-2, 5.3.3.1, per cent of it. */
export function coefficientUncertainty({ pipeM, boreM }: Plate, reynolds: number): number {
  const beta = betaOf({ pipeM, boreM });
  const base = beta < 0.2 ? 0.7 - beta : beta <= 0.6 ? 0.5 : 1.667 * beta - 0.5;
  const small = pipeM < SMALL_PIPE_M ? 0.9 * (0.75 - beta) * (2.8 - pipeM / INCH_M) : 0;
  const slow = beta > 0.5 && reynolds < 10_000 ? 0.5 : 0;
  return base + small + slow;
}

/** Expanded uncertainty of the expansibility by 5.3.3.2, per cent of it. */
export const expansibilityUncertainty = (
  { pressurePa, isentropicExponent }: Fluid,
  differentialPa: number,
): number => (isentropicExponent === null ? 0 : (3.5 * differentialPa) / (isentropicExponent * pressurePa));

/**
 * Expanded uncertainty of the mass flow, per cent of it, by ISO 5167-1, 8.2.2.2 (equation 3).
 * @param given of each part, per cent of itself
 */
export function flowUncertainty(beta: number, given: OrificeUncertainties): number {
  const beta4 = beta ** 4;
  const parts = [
    given.coefficient,
    given.expansibility,
    ((2 * beta4) / (1 - beta4)) * given.pipe,
    (2 / (1 - beta4)) * given.bore,
    0.5 * given.differential,
    0.5 * given.density,
  ];
  return Math.sqrt(parts.reduce((sum, part) => sum + part * part, 0));
}
