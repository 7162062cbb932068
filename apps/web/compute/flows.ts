import {
  brokenLimits,
  coefficientUncertainty,
  dampedFlow,
  densityFactor,
  differentialAt,
  expansibilityUncertainty,
  flowAt,
  flowErrorAt,
  flowUncertainty,
  orificeBore,
  orificeDifferential,
  orificeFlow,
  rangeability,
  TAPS,
  totaliserFactor,
  totalsOf,
  totalsOfDifferential,
  uncompensatedPercent,
  workDensity,
  workFlow,
  workFlowError,
  workOrifice,
  type OrificeFlow,
  type Plate,
} from '@barys/core/flow';
import { z } from 'zod';
import { calculation } from './calculation';
import { maybe, number, shownUnit, transfer, working } from './schemas';

const ROOT = { kind: 'square-root' } as const;
const scale = z
  .strictObject({ flowMax: number, differentialMax: number })
  .meta({ id: 'FlowScale', description: 'Full scale of a primary element, each in one unit throughout.' });
const units = z
  .strictObject({ flow: shownUnit, differential: shownUnit })
  .default({ flow: '', differential: '' });

const pipe = { pipeM: number, taps: z.enum(TAPS) };
const plate = z.strictObject({ ...pipe, boreM: number }).meta({ id: 'OrificePlate' });
const fluid = z
  .strictObject({
    pressurePa: number,
    densityKgPerM3: number,
    viscosityPaS: number,
    isentropicExponent: number.nullable().default(null),
  })
  .meta({
    id: 'OrificeFluid',
    description: 'Upstream; absolute pressure, no isentropic exponent for a liquid.',
  });
const uncertainties = z
  .strictObject({
    pipe: number.default(0.4),
    bore: number.default(0.07),
    differential: number.default(0),
    density: number.default(0),
  })
  .default({ pipe: 0.4, bore: 0.07, differential: 0, density: 0 })
  .meta({ id: 'OrificeUncertainties', description: 'Expanded, per cent of each itself.' });

const orificeOut = {
  beta: number,
  coefficient: number,
  expansibility: number,
  reynolds: number,
  massFlow: number,
  volumeFlow: number,
  differentialPa: number,
  lossPa: number,
  /** Limits of use of the standard that are not kept, in words. */
  broken: z.array(z.string()),
  uncertaintyPercent: number,
  working,
};

/** A flow with what the standard says of its use and of its uncertainty. */
function answered(
  given: Plate,
  flowing: z.output<typeof fluid>,
  flow: OrificeFlow,
  parts: z.output<typeof uncertainties>,
) {
  return {
    ...flow,
    broken: brokenLimits(given, flowing, flow).map(({ words }) => words),
    uncertaintyPercent: flowUncertainty(flow.beta, {
      ...parts,
      coefficient: coefficientUncertainty(given, flow.reynolds),
      expansibility: expansibilityUncertainty(flowing, flow.differentialPa),
    }),
    working: workOrifice(given, flowing, flow.differentialPa).working,
  };
}

const sample = z.strictObject({ time: number, flow: number });
const differentialSample = z.strictObject({ time: number, differential: number });
const perUnitTime = number.default(1);
const totals = { trapezoid: number, holdPrevious: number, holdNext: number, mean: number };

export const FLOW_CALCULATIONS = [
  calculation(
    'flow-from-differential',
    'Flow that a differential stands for, with the low-flow part of the root',
    z.strictObject({ scale, differential: number, transferFunction: transfer.default(ROOT), units }),
    z.object({ flow: number, working }),
    ({ scale: given, differential, transferFunction, units: shown }) => ({
      flow: flowAt(given, differential, transferFunction),
      working: workFlow(given, differential, transferFunction, shown).working,
    }),
  ),
  calculation(
    'differential-from-flow',
    'Differential of a flow',
    z.strictObject({ scale, flow: number }),
    z.object({ differential: number }),
    ({ scale: given, flow }) => ({ differential: differentialAt(given, flow) }),
  ),
  calculation(
    'flow-error',
    'What an error of the differential makes of the flow that is shown',
    z.strictObject({ flowPercent: number, errorPercent: number }),
    z.object({ percentOfFlow: maybe, linearPercentOfFlow: maybe, percentOfMax: number, working }),
    ({ flowPercent, errorPercent }) => ({
      ...flowErrorAt(flowPercent, errorPercent),
      working: workFlowError(flowPercent, errorPercent).working,
    }),
  ),
  calculation(
    'flow-rangeability',
    'How far below full scale flow is shown with a low-flow cut-off',
    z.strictObject({ cutOffPercentOfFlow: number }),
    z.object({ rangeability: maybe }),
    ({ cutOffPercentOfFlow }) => ({ rangeability: rangeability(cutOffPercentOfFlow) }),
  ),
  calculation(
    'gas-density-factor',
    'Correction of a flow for the pressure and temperature of a gas; absolute pressures in one unit',
    z.strictObject({
      pressure: number,
      temperatureC: number,
      designPressure: number,
      designTemperatureC: number,
    }),
    z.object({ factor: number, uncompensatedPercent: number, working }),
    ({ pressure, temperatureC, designPressure, designTemperatureC }) => {
      const [now, design] = [
        { pressure, temperatureC },
        { pressure: designPressure, temperatureC: designTemperatureC },
      ];
      const factor = densityFactor(now, design);
      return {
        factor,
        uncompensatedPercent: uncompensatedPercent(factor),
        working: workDensity(now, design).working,
      };
    },
  ),
  calculation(
    'orifice-flow',
    'Flow through an orifice plate from its differential, ISO 5167-2',
    z.strictObject({ plate, fluid, differentialPa: number, uncertainties }),
    z.object(orificeOut),
    ({ plate: given, fluid: flowing, differentialPa, uncertainties: parts }) =>
      answered(given, flowing, orificeFlow(given, flowing, differentialPa), parts),
  ),
  calculation(
    'orifice-differential',
    'Differential of an orifice plate from its flow, ISO 5167-2',
    z.strictObject({ plate, fluid, massFlow: number, uncertainties }),
    z.object(orificeOut),
    ({ plate: given, fluid: flowing, massFlow, uncertainties: parts }) =>
      answered(given, flowing, orificeDifferential(given, flowing, massFlow), parts),
  ),
  calculation(
    'orifice-bore',
    'Bore of an orifice plate from flow and differential, ISO 5167-2',
    z.strictObject({ ...pipe, fluid, massFlow: number, differentialPa: number, uncertainties }),
    z.object({ ...orificeOut, boreM: number }),
    ({ pipeM, taps, fluid: flowing, massFlow, differentialPa, uncertainties: parts }) => {
      const flow = orificeBore({ pipeM, taps }, flowing, massFlow, differentialPa);
      return { ...answered({ pipeM, taps, boreM: flow.boreM }, flowing, flow, parts), boreM: flow.boreM };
    },
  ),
  calculation(
    'flow-total',
    'What has flowed, from samples of the flow',
    z.strictObject({ samples: z.array(sample).max(10_000), perUnitTime }),
    z.object(totals),
    ({ samples, perUnitTime: per }) => totalsOf(samples, per),
  ),
  calculation(
    'flow-total-from-differential',
    'What has flowed, from samples of the differential: the root is taken of each',
    z.strictObject({
      scale,
      samples: z.array(differentialSample).max(10_000),
      perUnitTime,
      transferFunction: transfer.default(ROOT),
    }),
    z.object({ ...totals, flowOfMeanDifferential: number }),
    ({ scale: given, samples, perUnitTime: per, transferFunction }) =>
      totalsOfDifferential(given, samples, per, transferFunction),
  ),
  calculation(
    'totaliser-factor',
    'What one count of a totaliser is worth',
    z.strictObject({ flowMax: number, countsPerTime: number }),
    z.object({ factor: number }),
    ({ flowMax, countsPerTime }) => ({ factor: totaliserFactor({ flowMax }, countsPerTime) }),
  ),
  calculation(
    'damped-flow',
    'A noisy flow behind its damping, simulated with a seed',
    z.strictObject({
      flowPercent: number,
      noisePercent: number,
      noiseTimeS: number,
      dampingS: number,
      transferFunction: transfer.default(ROOT),
      seed: z.number().int().min(1).max(1_000_000).default(1),
    }),
    z.object({
      meanPercent: number,
      deviationPercent: number,
      biasPercent: number,
      to63S: number,
      to99S: number,
      stepS: number,
      shown: z.array(number).readonly(),
    }),
    ({ transferFunction, ...given }) => dampedFlow({ ...given, transfer: transferFunction }),
  ),
];
