/** What the fields of Flow come to. */
import {
  checkScale,
  dampedFlow,
  densityFactor,
  flowAt,
  flowErrorAt,
  rangeability,
  totaliserFactor,
  uncompensatedPercent,
  workDensity,
  workFlow,
  workFlowError,
  type DampedFlow,
  type FlowScale,
} from '@barys/core/flow';
import { CoreError } from '@barys/core/errors';
import { checkRange, expectedOutput, type SignalRange, type Transfer } from '@barys/core/signal';
import {
  decimalsForResolution,
  formatFixed,
  formatPlain,
  formatSigned,
  resolutionForSpan,
} from '@barys/core/text';
import { unitLabel } from '@barys/core/units';
import type { Step } from '@barys/core/working';
import Papa from 'papaparse';
import { gasOf, noisyOf, scaleOf, transfersOf, unitOf, zeroOf, type FlowFields } from './fields';
import { numberAt } from '../typed';

export interface FlowRow {
  /** Per cent of flow, the differential, and at each root what is put out and shown. */
  readonly percent: string;
  readonly differential: string;
  readonly cut: readonly [output: string, flow: string];
  readonly linear: readonly [output: string, flow: string];
}

export interface ZeroRow {
  readonly percent: string;
  readonly flow: string;
  readonly shown: string;
  /** In flow units, and per cent of the flow; a dash at no flow. */
  readonly error: string;
  readonly percentOfFlow: string;
}

export interface FlowResult {
  readonly scale: FlowScale;
  readonly cut: Transfer;
  readonly linear: Transfer;
  readonly range: SignalRange;
  readonly straight: SignalRange;
  readonly rangeability: number | null;
  /** The differential at the cut-off, and at the end of the linear start. */
  readonly knees: readonly [cut: string, linear: string];
  readonly rows: readonly FlowRow[];
  /** How finely differentials, flows and currents are shown. */
  readonly show: Readonly<Record<'differential' | 'flow', (value: number) => string>>;
}

const signal = ({ differentialMax }: FlowScale, transferFunction: Transfer): SignalRange => ({
  lrv: 0,
  urv: differentialMax,
  outputLow: 4,
  outputHigh: 20,
  transferFunction,
});

/** Enough for a step of a tenth of a per cent. */
const MOST_ROWS = 1001;

/** Shares of the differential at which the table stands, by its step. */
function sharesOf(fields: FlowFields): readonly number[] {
  const step = numberAt(fields, 'step', 'The step');
  if (!(step > 0) || step > 100)
    throw new CoreError(
      { code: 'out-of-bounds', name: 'The step', value: step, lowest: 0.1, highest: 100, unit: '%' },
      'step',
    );
  const count = Math.floor(100 / step + 1e-9);
  if (count + 2 > MOST_ROWS)
    throw new CoreError({ code: 'too-small', name: 'The step', value: step, least: 0.1, unit: '%' }, 'step');
  const percents = Array.from({ length: count + 1 }, (_, i) => Number((i * step).toPrecision(12)));
  if (percents.at(-1) !== 100) percents.push(100);
  return percents.map((percent) => (fields.evenIn === 'differential' ? percent / 100 : (percent / 100) ** 2));
}

/** @throws CoreError at the field that is wrong */
export function computeFlow(fields: FlowFields): FlowResult {
  const scale = scaleOf(fields);
  checkScale(scale);
  const { cut, linear } = transfersOf(fields);
  const [range, straight] = [signal(scale, cut), signal(scale, linear)];
  checkRange(range);
  checkRange(straight);
  const decimals = (span: number) => decimalsForResolution(resolutionForSpan(span));
  const show = {
    differential: (value: number) => formatFixed(value, decimals(scale.differentialMax) + 1),
    flow: (value: number) => formatFixed(value, decimals(scale.flowMax) + 1),
  };
  const at = (transfer: Transfer, of: SignalRange, differential: number) =>
    [
      formatFixed(expectedOutput(of, differential), 3),
      show.flow(flowAt(scale, differential, transfer)),
    ] as const;
  const knee = (percent: number) => show.differential(scale.differentialMax * (percent / 100) ** 2);
  const cutOff = numberAt(fields, 'cutOff', 'The cut-off');
  return {
    scale,
    cut,
    linear,
    range,
    straight,
    rangeability: rangeability(cutOff),
    knees: [knee(cutOff), knee(numberAt(fields, 'linearTo', 'The end of the linear start'))],
    rows: sharesOf(fields).map((share) => {
      const differential = Number((share * scale.differentialMax).toPrecision(14));
      return {
        percent: formatFixed(Math.sqrt(share) * 100, 2),
        differential: show.differential(differential),
        cut: at(cut, range, differential),
        linear: at(linear, straight, differential),
      };
    }),
    show,
  };
}

/** Flows at which it is shown what a wrong zero does, %. */
const ZERO_AT = [0, 2, 5, 10, 25, 50, 75, 100] as const;

export interface ZeroResult {
  /** All of it, in the unit of the differential and per cent of its span. */
  readonly off: number;
  readonly offPercent: number;
  readonly position: number;
  readonly rows: readonly ZeroRow[];
  /** What is shown while nothing flows, without any low-flow part; and with the cut. */
  readonly atRest: string;
  readonly atRestCut: string;
  readonly working: () => readonly Step[];
}

/** @throws CoreError at the field that is wrong */
export function computeZero(fields: FlowFields, { scale, cut, show }: FlowResult): ZeroResult {
  const { typed, position } = zeroOf(fields);
  const off = typed + position;
  const offPercent = (off / scale.differentialMax) * 100;
  return {
    off,
    offPercent,
    position,
    rows: ZERO_AT.map((percent) => {
      const { percentOfMax, percentOfFlow } = flowErrorAt(percent, offPercent);
      const flow = (percent / 100) * scale.flowMax;
      const error = (percentOfMax / 100) * scale.flowMax;
      return {
        percent: formatPlain(percent),
        flow: show.flow(flow),
        shown: show.flow(flow + error),
        error: formatSigned(error, 2),
        percentOfFlow: percentOfFlow === null ? '–' : formatSigned(percentOfFlow, 2),
      };
    }),
    atRest: show.flow(flowAt(scale, off)),
    atRestCut: show.flow(flowAt(scale, off, cut)),
    working: () => workFlowError(0, offPercent).working,
  };
}

export interface GasResult {
  readonly factor: number;
  readonly corrected: string;
  readonly uncompensatedPercent: number;
  readonly working: () => readonly Step[];
}

/** @throws CoreError at the field that is wrong */
export function computeGas(fields: FlowFields, { show }: FlowResult): GasResult {
  const { now, design } = gasOf(fields);
  const factor = densityFactor(now, design);
  return {
    factor,
    corrected: show.flow(factor * numberAt(fields, 'indicated', 'The flow that is shown')),
    uncompensatedPercent: uncompensatedPercent(factor),
    working: () => workDensity(now, design).working,
  };
}

/** @throws CoreError at the field that is wrong */
export const computeFactor = (fields: FlowFields, { scale }: FlowResult): number =>
  totaliserFactor(scale, numberAt(fields, 'counts', 'Counts at full scale'));

export interface NoiseRow {
  readonly dampingS: number;
  readonly damped: DampedFlow;
  readonly isChosen: boolean;
}

const DAMPINGS = [0, 0.5, 1, 2, 5, 10] as const;

/** @throws CoreError at the field that is wrong */
export function computeNoise(fields: FlowFields, { cut }: FlowResult): readonly NoiseRow[] {
  const noisy = noisyOf(fields, cut);
  return [...new Set([...DAMPINGS, noisy.dampingS])]
    .sort((a, b) => a - b)
    .map((dampingS) => ({
      dampingS,
      damped: dampedFlow({ ...noisy, dampingS }),
      isChosen: dampingS === noisy.dampingS,
    }));
}

/** The flow at one differential by both roots, with its working. */
export function computeOne(fields: FlowFields, { scale, cut, linear, show }: FlowResult) {
  const differential = numberAt(fields, 'applied', 'The differential');
  const units = { flow: fields.flowUnit, differential: unitLabel(unitOf(fields)) };
  return {
    cut: show.flow(flowAt(scale, differential, cut)),
    linear: show.flow(flowAt(scale, differential, linear)),
    working: () => workFlow(scale, differential, cut, units).working,
  };
}

/** The range as the form of an instrument's next configuration takes it. */
export const configurationOfFlow = (fields: FlowFields, { scale }: FlowResult): Record<string, string> => ({
  lrv: '0',
  urv: String(scale.differentialMax),
  inputUnit: unitOf(fields),
  transfer: 'square-root-cut-off',
  knee: fields.cutOff,
  displayLow: '0',
  displayHigh: String(scale.flowMax),
  displayUnit: fields.flowUnit,
  reason: `Flow, ${formatPlain(scale.flowMax)} ${fields.flowUnit} at ${formatPlain(scale.differentialMax)} ${unitLabel(unitOf(fields))}, nothing below ${fields.cutOff} % of flow`,
});

export const noteOfFlow = (fields: FlowFields, { scale, knees }: FlowResult): string =>
  `Flow: 0 … ${formatPlain(scale.flowMax)} ${fields.flowUnit} for 0 … ${formatPlain(scale.differentialMax)} ${unitLabel(unitOf(fields))}; nothing below ${fields.cutOff} % of flow, ${knees[0]} ${unitLabel(unitOf(fields))}.`;

export const csvOfFlow = (fields: FlowFields, rows: readonly FlowRow[]): string => {
  const plain = (text: string) => text.replace('\u2212', '-');
  return Papa.unparse({
    fields: [
      'Flow, %',
      `Differential, ${unitLabel(unitOf(fields))}`,
      'Output cut to zero, mA',
      `Flow cut to zero, ${fields.flowUnit}`,
      'Output with a linear start, mA',
      `Flow with a linear start, ${fields.flowUnit}`,
    ],
    data: rows.map(({ percent, differential, cut, linear }) =>
      [percent, differential, ...cut, ...linear].map(plain),
    ),
  });
};
