/** Budgets to begin with. Their figures are invented; their models are those of the usual work. */
import type { BudgetFields, DistributionKind, InputFields } from './fields';

const input = (
  name: string,
  estimate: string,
  unit: string,
  kind: DistributionKind,
  ...figures: string[]
): InputFields => ({ name, estimate, unit, kind, figures, degreesOfFreedom: '' });

const usual = { correlations: [], probability: '95.45' };

export const EXAMPLES: readonly BudgetFields[] = [
  {
    ...usual,
    title: 'Linear transmitter, error in % of span',
    model: '100 * ((I + dI + dR) - (4 + 16 * (p + dp + dh) / span)) / 16',
    unit: '% of span',
    inputs: [
      input('I', '', 'mA', 'type-a', '12.012 12.014 12.011 12.013 12.012'),
      input('dI', '0', 'mA', 'rectangular', '0.003'),
      input('dR', '0', 'mA', 'resolution', '0.001'),
      input('p', '50', 'kPa', 'normal', '0.025', '2'),
      input('dp', '0', 'kPa', 'rectangular', '0.010'),
      input('dh', '0', 'kPa', 'rectangular', '0.005'),
      input('span', '100', 'kPa', 'standard', '0'),
    ],
    lower: '-0.1',
    upper: '0.1',
  },
  {
    ...usual,
    title: 'Square-root transmitter, flow near zero',
    model: '100 * sqrt(max(dp + d, 0) / span)',
    unit: '% of flow',
    inputs: [
      input('dp', '0.4', 'kPa', 'standard', '0.08'),
      input('d', '0', 'kPa', 'rectangular', '0.1'),
      input('span', '25', 'kPa', 'standard', '0'),
    ],
    lower: '',
    upper: '',
  },
  {
    ...usual,
    title: 'Current by voltage across a resistor',
    model: '1000 * (V + dV) / R',
    unit: 'mA',
    inputs: [
      input('V', '3.0012', 'V', 'standard', '0.0004'),
      input('dV', '0', 'V', 'rectangular', '0.0009'),
      input('R', '250', 'ohm', 'rectangular', '0.25'),
    ],
    lower: '11.96',
    upper: '12.04',
  },
  {
    ...usual,
    title: 'Dial gauge, error in bar',
    model: 'ind - p_ref + d_hyst + d_zero + d_temp',
    unit: 'bar',
    inputs: [
      input('ind', '8.05', 'bar', 'rectangular', '0.02'),
      input('p_ref', '8.0', 'bar', 'normal', '0.004', '2'),
      input('d_hyst', '0', 'bar', 'rectangular', '0.03'),
      input('d_zero', '0', 'bar', 'rectangular', '0.01'),
      input('d_temp', '0', 'bar', 'u-shaped', '0.008'),
    ],
    lower: '-0.16',
    upper: '0.16',
  },
];
