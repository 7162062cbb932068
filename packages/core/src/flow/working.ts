/** How flow, its error, its correction and an orifice plate come about, step by step. */
import { shareFormula } from '../signal/working';
import type { Transfer } from '../signal';
import { Working, type Given, type Worked } from '../working';
import { dischargeCoefficient, orificeFlow, reynoldsOf, type Fluid, type Plate } from './orifice';
import { checkScale, flowErrorAt, type FlowScale, type GasState } from './root';

const ROOT_LAW = 'common practice, square root law of a primary element';
const ISO = (clause: string): string => `ISO 5167-2:2003, ${clause}, from memory`;
const plain = (value: number): Given => ({ value, unit: '' });

/** The flow that a differential stands for. */
export function workFlow(
  scale: FlowScale,
  differential: number,
  transfer: Transfer,
  units: { readonly flow: string; readonly differential: string },
): Worked {
  checkScale(scale);
  const work = new Working();
  const t = work.step({
    what: 'Share of the differential',
    symbol: 't',
    formula: 'dp / dp_max',
    given: {
      dp: { value: differential, unit: units.differential },
      dp_max: { value: scale.differentialMax, unit: units.differential },
    },
    unit: '',
    source: ROOT_LAW,
  });
  const { formula, given, what, source } = shareFormula(transfer, t);
  work.step({ what, symbol: 's', formula, ...(given === undefined ? {} : { given }), unit: '', source });
  const value = work.step({
    what: 'Flow',
    symbol: 'q',
    formula: 'q_max s',
    given: { q_max: { value: scale.flowMax, unit: units.flow } },
    unit: units.flow,
    source: ROOT_LAW,
  });
  return { value, working: work.steps };
}

/** What an error of the differential makes of the flow, per cent of full scale. */
export function workFlowError(flowPercent: number, errorPercent: number): Worked {
  flowErrorAt(flowPercent, errorPercent);
  const work = new Working();
  work.step({
    what: 'Share of the differential at this flow',
    symbol: 't',
    formula: '(F / 100)^2',
    given: { F: { value: flowPercent, unit: '%' } },
    unit: '',
    source: ROOT_LAW,
  });
  const value = work.step({
    what: 'What is shown less what flows; below no differential nothing flows',
    symbol: 'e_q',
    formula: '100 (sqrt(max(t + e / 100, 0)) - sqrt(t))',
    given: { e: { value: errorPercent, unit: '%' } },
    unit: '% of full scale',
    source: ROOT_LAW,
  });
  return { value, working: work.steps };
}

/** The factor for another density of a gas. */
export function workDensity(now: GasState, design: GasState): Worked {
  const work = new Working();
  const value = work.step({
    what: 'Root of the density now over that of the design',
    symbol: 'k',
    formula: 'sqrt(p * (T_ref + 273.15) / (p_ref * (T + 273.15)))',
    given: {
      p: plain(now.pressure),
      p_ref: plain(design.pressure),
      T: { value: now.temperatureC, unit: '°C' },
      T_ref: { value: design.temperatureC, unit: '°C' },
    },
    unit: '',
    source: 'ideal gas of constant composition; absolute pressures',
  });
  return { value, working: work.steps };
}

/** The mass flow through a plate, with the coefficient at the Reynolds number that it comes to rest at. */
export function workOrifice(plate: Plate, fluid: Fluid, differentialPa: number): Worked {
  const flow = orificeFlow(plate, fluid, differentialPa);
  const work = new Working();
  work.step({
    what: 'Ratio of the diameters',
    symbol: 'beta',
    formula: 'd / D',
    given: { d: { value: plate.boreM, unit: 'm' }, D: { value: plate.pipeM, unit: 'm' } },
    unit: '',
    source: ISO('clause 3'),
  });
  work.step({
    what: 'Discharge coefficient of Reader-Harris and Gallagher, at the Reynolds number of this flow; found in rounds',
    symbol: 'C',
    formula: 'v',
    given: { v: plain(dischargeCoefficient(plate, reynoldsOf(plate, fluid, flow.massFlow))) },
    unit: '',
    notation: "C(\\beta, Re_D, L_1, L_2')",
    source: ISO('5.3.2.1, equation 4'),
  });
  if (fluid.isentropicExponent === null)
    work.step({
      what: 'A liquid does not expand',
      symbol: 'epsilon',
      formula: 'v',
      given: { v: plain(1) },
      unit: '',
      source: ISO('5.3.2.2'),
    });
  else
    work.step({
      what: 'Expansibility',
      symbol: 'epsilon',
      formula: '1 - (0.351 + 0.256 beta^4 + 0.93 beta^8) * (1 - ((p_1 - dp) / p_1)^(1 / kappa))',
      given: {
        p_1: { value: fluid.pressurePa, unit: 'Pa' },
        dp: { value: differentialPa, unit: 'Pa' },
        kappa: plain(fluid.isentropicExponent),
      },
      unit: '',
      source: ISO('5.3.2.2, equation 5'),
    });
  const value = work.step({
    what: 'Mass flow',
    symbol: 'q_m',
    formula: 'C * epsilon * pi / 4 * d^2 * sqrt(2 * dp * rho) / sqrt(1 - beta^4)',
    given: {
      d: { value: plate.boreM, unit: 'm' },
      dp: { value: differentialPa, unit: 'Pa' },
      rho: { value: fluid.densityKgPerM3, unit: 'kg/m³' },
    },
    unit: 'kg/s',
    source: 'ISO 5167-1:2003, equation 1, from memory',
  });
  work.step({
    what: 'Volume flow as it is upstream',
    symbol: 'q_V',
    formula: 'q_m / rho',
    given: { rho: { value: fluid.densityKgPerM3, unit: 'kg/m³' } },
    unit: 'm³/s',
    source: ISO('clause 3'),
  });
  return { value, working: work.steps };
}
