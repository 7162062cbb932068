/** How finely the figures of one instrument are shown: by what the reference and the meter resolve. */
import type { JudgedReading, RunEvaluation } from '@barys/core/run';
import { outputSpan } from '@barys/core/signal';
import {
  decimalsForResolution,
  formatFixed,
  formatPlain,
  formatSigned,
  resolutionForSpan,
} from '@barys/core/text';
import { convertPressure, isPressureUnit, PRESSURE_UNITS } from '@barys/core/units';
import type { Configuration } from '@barys/store/registers';
import type { MadeWith } from '@barys/store/runs';

/** The customary last digit of a loop meter, mA. */
const USUAL_METER_RESOLUTION = 0.001;

/** What the output is read to until a meter is chosen: half a division by eye, else what its span justifies. */
const usualResolution = (configuration: Configuration): number =>
  configuration.scaleDivision !== null
    ? configuration.scaleDivision / 2
    : configuration.outputUnit === 'mA'
      ? USUAL_METER_RESOLUTION
      : resolutionForSpan(outputSpan(configuration));

/** A point's per cent of span by name: so many digits tell it from its neighbours, also low in a wide range. */
export const pointPercent = (nominalPercent: number): string =>
  formatPlain(Number(nominalPercent.toPrecision(Math.abs(nominalPercent) < 10 ? 3 : 4)));

/** A point by name, as in `50 % rising, cycle 2`. */
export const pointWords = ({
  nominalPercent,
  direction,
  cycle,
}: Pick<MadeWith['points'][number], 'nominalPercent' | 'direction' | 'cycle'>): string =>
  `${pointPercent(nominalPercent)} % ${direction === 'up' ? 'rising' : 'falling'}${cycle > 1 ? `, cycle ${cycle}` : ''}`;

export interface Figures {
  readonly inputUnit: string;
  readonly outputUnit: string;
  /** An input without its unit. */
  input(value: number): string;
  /** An output without its unit. */
  output(value: number): string;
  /** An error in per cent of span, signed, without the sign of per cent. */
  percent(value: number): string;
  /** The same without a sign, for amounts that have none. */
  amount(value: number): string;
  /** What errors are a per cent of. */
  readonly errorOf: 'span' | 'reading';
  /** The reading that is worst in those terms; null of none. */
  worst(evaluation: RunEvaluation): JudgedReading | null;
  /** The error of a reading in per cent of that, signed, without the sign of per cent. */
  error(judged: Pick<JudgedReading, 'errorPercentSpan' | 'errorOutput' | 'expected'>): string;
  /** The expanded uncertainty of that error in the same terms; empty where none is known. */
  uncertainty(judged: Pick<JudgedReading, 'uncertainty' | 'expected'>): string;
}

/** Enough for 31.25 of 500; more digits than that nobody sets. */
const MORE_DECIMALS = 2;
/** Enough for the lowest decade of a range over six of them. */
const MOST_MORE_DECIMALS = 5;

/**
 * A point that does not fall on the usual last digit is shown whole where some more digits do that: 31.25 of 500, which
 * would be set as 31.3 otherwise. One that never ends, such as a third, or is moved by a head, keeps the usual digits.
 */
function decimalsFor(value: number, usual: number): number {
  // A value below ten of its last digits lies low in a wide range, and needs what its decade needs.
  const more = Math.abs(value) < 10 ** (1 - usual) ? MOST_MORE_DECIMALS : MORE_DECIMALS;
  for (let decimals = usual; decimals <= usual + more; decimals += 1)
    if (Math.abs(Number(value.toFixed(decimals)) - value) <= 1e-12 * Math.abs(value)) return decimals;
  return usual;
}

/**
 * How finely a run is shown: as its meter resolves, or as its scale is read by eye. Errors are of span, but of the
 * reading where the limit is of the reading alone.
 */
export function figuresOfRun(madeWith: Pick<MadeWith, 'configuration' | 'meter' | 'tolerance'>): Figures {
  const figures = figuresOfMeter(madeWith);
  const { percentOfSpan, percentOfReading } = madeWith.tolerance;
  if (percentOfSpan > 0 || percentOfReading === 0) return figures;
  return {
    ...figures,
    errorOf: 'reading',
    // A wide range of decades: what is worst is so against its own limit, not against the span.
    worst: ({ readings }) =>
      readings.reduce<JudgedReading | null>(
        (worst, one) => (worst === null || sizeOf(one) > sizeOf(worst) ? one : worst),
        null,
      ),
    error: ({ errorOutput, expected }) =>
      expected === 0 ? '–' : formatSigned((errorOutput / Math.abs(expected)) * 100, 1),
    uncertainty: ({ uncertainty, expected }) =>
      uncertainty === undefined || expected === 0
        ? ''
        : formatFixed((uncertainty / Math.abs(expected)) * 100, 1),
  };
}

const sizeOf = ({ errorOfLimit }: JudgedReading): number => Math.abs(errorOfLimit ?? Infinity);

function figuresOfMeter({ configuration, meter }: Pick<MadeWith, 'configuration' | 'meter'>): Figures {
  if (meter === null) return figuresFor(configuration);
  const { outputUnit } = configuration;
  const { unit, resolution } = meter;
  if (isPressureUnit(outputUnit) && isPressureUnit(unit))
    return figuresFor(configuration, convertPressure(resolution, unit, outputUnit));
  return figuresFor(configuration, unit === 'V' && outputUnit === 'mV' ? resolution * 1000 : resolution);
}

export function figuresFor(
  configuration: Configuration,
  meterResolution = usualResolution(configuration),
): Figures {
  const inputDecimals = decimalsForResolution(resolutionForSpan(configuration.urv - configuration.lrv));
  const outputDecimals = decimalsForResolution(meterResolution);
  // A scale read by eye resolves whole per cents, and still has limits between them.
  const percentDecimals = Math.max(
    1,
    decimalsForResolution((meterResolution / outputSpan(configuration)) * 100),
  );
  return {
    inputUnit: PRESSURE_UNITS[configuration.inputUnit].label,
    outputUnit: isPressureUnit(configuration.outputUnit)
      ? PRESSURE_UNITS[configuration.outputUnit].label
      : configuration.outputUnit,
    input: (value) => formatFixed(value, decimalsFor(value, inputDecimals)),
    // A loop meter has its last digit; a scale over decades shows what each of them needs.
    output: (value) =>
      formatFixed(
        value,
        isPressureUnit(configuration.outputUnit) ? decimalsFor(value, outputDecimals) : outputDecimals,
      ),
    errorOf: 'span',
    worst: ({ worst }) => worst,
    error: ({ errorPercentSpan }) => formatSigned(errorPercentSpan, percentDecimals),
    uncertainty: ({ uncertainty }) =>
      uncertainty === undefined
        ? ''
        : formatFixed((uncertainty / outputSpan(configuration)) * 100, percentDecimals),
    percent: (value) => formatSigned(value, percentDecimals),
    amount: (value) => formatFixed(value, percentDecimals),
  };
}
