/**
 * What was read at an instrument against what has to be set: each difference, what it does to the reading in figures, and
 * whether it matters. A difference is judged alone, with all else as it has to be. Common practice, on the relations of
 * `signal`.
 */
import { requireNotNegative } from '../errors';
import { LINEAR, share, type Transfer } from '../signal';
import { formatPlain, formatSignificant } from '../text';
import { convertPressure, PRESSURE_UNITS, type PressureUnit } from '../units';
import { SETTINGS, settingWords, type SettingKey, type Setup, type SwitchingPoint } from './settings';

/** `yes` is to be put right; `little` shows, and stays within the tolerance; `no` changes nothing that is measured. */
export type Matters = 'yes' | 'little' | 'no';

export interface Difference {
  readonly key: SettingKey;
  readonly name: string;
  readonly wanted: string;
  readonly read: string;
  readonly effect: string;
  /** The largest change of the output that it makes, per cent of the output span; null where it makes none. */
  readonly percentOfSpan: number | null;
  readonly matters: Matters;
}

export interface SetupComparison {
  /** In the order of the walk. */
  readonly differences: readonly Difference[];
  /** Settings that are as they have to be. */
  readonly same: readonly SettingKey[];
  /** Settings that were not read, though they have to be something. */
  readonly unread: readonly SettingKey[];
  /** Settings that were read, of which the register says nothing. */
  readonly unregistered: readonly SettingKey[];
}

/** What has to be set, with what it takes to say what a difference does. */
export interface WantedSetup extends Setup {
  readonly inputUnit: PressureUnit;
  readonly lrv: number;
  readonly urv: number;
  readonly transferFunction: Transfer;
  readonly outputLow: number;
  readonly outputHigh: number;
  readonly outputUnit: string;
  /** Largest error, per cent of the output span: what does more than this matters. */
  readonly tolerancePercentOfSpan: number;
}

/** Two figures that differ by less than a billionth of the span are the same, written in other units. */
const SAME = 1e-9;

type OutputShare = (t: number) => number;

/** The share of the output that a range makes of a pressure given as a share of the wanted range. */
function shareOf(wanted: WantedSetup, lrv: number, urv: number, transfer: Transfer): OutputShare {
  const span = wanted.urv - wanted.lrv;
  return (t) => share(transfer, (wanted.lrv + t * span - lrv) / (urv - lrv));
}

interface Worst {
  readonly percent: number;
  readonly words: string;
}

/** Finer at its start, where a root is steepest and low flow is cut. */
const SCAN: readonly number[] = [
  ...Array.from({ length: 500 }, (_, step) => step / 50_000),
  ...Array.from({ length: 991 }, (_, step) => (step + 10) / 1000),
];

/**
 * Where two outputs are farthest apart over the wanted range.
 * @param counts shares of the wanted range that are looked at
 */
function worstOf(wanted: WantedSetup, is: OutputShare, counts: (t: number) => boolean = () => true): Worst {
  const must = shareOf(wanted, wanted.lrv, wanted.urv, wanted.transferFunction);
  let at = 0;
  for (const t of SCAN)
    if (counts(t) && Math.abs(is(t) - must(t)) > Math.abs(is(at) - must(at)) * (1 + SAME)) at = t;
  const percent = (is(at) - must(at)) * 100;
  const output = (part: number) =>
    `${formatSignificant(wanted.outputLow + part * (wanted.outputHigh - wanted.outputLow), 5)} ${wanted.outputUnit}`;
  const applied = wanted.lrv + at * (wanted.urv - wanted.lrv);
  return {
    percent,
    words:
      `At ${formatSignificant(applied, 5)} ${PRESSURE_UNITS[wanted.inputUnit].label} the output is ${output(is(at))}` +
      ` instead of ${output(must(at))}: ${percent > 0 ? '+' : ''}${formatSignificant(percent, 3)} % of span.`,
  };
}

type Effect = Pick<Difference, 'effect' | 'percentOfSpan' | 'matters'>;

const ofOutput = (
  wanted: WantedSetup,
  is: OutputShare,
  counts: (t: number) => boolean = () => true,
): Effect => {
  const { percent, words } = worstOf(wanted, is, counts);
  if (Math.abs(percent) < SAME * 100)
    return { effect: 'The output is the same.', percentOfSpan: null, matters: 'no' };
  // A verdict on the limit is not put out of it by the last digit.
  const isBeyond = Math.abs(percent) > wanted.tolerancePercentOfSpan * (1 + SAME);
  return { effect: words, percentOfSpan: percent, matters: isBeyond ? 'yes' : 'little' };
};

/** A first-order lag comes within 0.1 % of a step after ln(1000) time constants. */
const TO_A_THOUSANDTH = Math.log(1000);

function lag(wanted: number, read: number): string {
  const both = (times: number) =>
    `${formatSignificant(read * times, 3)} s instead of ${formatSignificant(wanted * times, 3)} s`;
  return `A step shows to 63 % after ${both(1)}, to 0.1 % after ${both(TO_A_THOUSANDTH)}`;
}

function unitEffect(wanted: WantedSetup, read: PressureUnit): Effect {
  const one = convertPressure(1, read, wanted.inputUnit);
  return {
    effect:
      `1 ${PRESSURE_UNITS[read].label} is ${formatSignificant(one, 6)} ${PRESSURE_UNITS[wanted.inputUnit].label}:` +
      ' what the instrument shows as pressure is read in another unit. The range values below are compared as pressures.',
    percentOfSpan: null,
    matters: 'little',
  };
}

/** The root is taken by the scaled variable and by the output, or by neither. */
function drivenEffect(wanted: WantedSetup, read: Setup['drivenBy']): Effect {
  const transfer = wanted.transferFunction;
  if (transfer.kind === 'linear')
    return {
      effect: `The output follows the ${read ?? ''}: its own range and transfer function count.`,
      percentOfSpan: null,
      matters: 'yes',
    };
  const is: OutputShare =
    read === 'scaled variable' ? (t) => share(transfer, share(transfer, t)) : (t) => share(LINEAR, t);
  const { percent, words } = worstOf(wanted, is);
  const why =
    read === 'scaled variable'
      ? 'Where the scaled variable takes the root too, it is taken twice'
      : 'Where only the scaled variable takes the root, it is not taken';
  return {
    effect: `${why}. ${words}`,
    percentOfSpan: percent,
    matters: 'yes',
  };
}

function displayEffect(wanted: WantedSetup, read: Setup): Effect {
  const [low, high] = [wanted.displayLow ?? 0, wanted.displayHigh ?? 100];
  if (low === high) return plainEffect('The scale that has to be set has no span.', 'yes');
  const shown = (read.displayLow ?? low) + (read.displayHigh ?? high);
  const percent = ((shown - low - high) / 2 / (high - low)) * 100;
  const unit = wanted.displayUnit ?? '';
  const ends = Math.max(
    Math.abs((read.displayLow ?? low) - low),
    Math.abs((read.displayHigh ?? high) - high),
  );
  const isBeyond = (ends / Math.abs(high - low)) * 100 > wanted.tolerancePercentOfSpan * (1 + SAME);
  return {
    effect:
      `At half the range the display shows ${formatSignificant(shown / 2, 5)} ${unit} instead of` +
      ` ${formatSignificant((low + high) / 2, 5)} ${unit}: ${percent > 0 ? '+' : ''}${formatSignificant(percent, 3)} % of its scale. The output is the same.`,
    percentOfSpan: null,
    matters: isBeyond ? 'yes' : 'little',
  };
}

function pointEffect(
  wanted: readonly SwitchingPoint[],
  read: readonly SwitchingPoint[],
  unit: PressureUnit,
  readUnit: PressureUnit,
): Effect {
  const label = PRESSURE_UNITS[unit].label;
  const inUnit = (value: number) => convertPressure(value, readUnit, unit);
  const words = wanted.map(({ name, on, off }) => {
    const found = read.find((one) => one.name.trim().toLowerCase() === name.trim().toLowerCase());
    if (found === undefined) return `${name} is not set.`;
    const moved = [
      [on, inUnit(found.on), 'switches'],
      [off, inUnit(found.off), 'goes back'],
    ] as const;
    return moved
      .filter(([must, is]) => Math.abs(is - must) > SAME * Math.max(Math.abs(is), Math.abs(must)))
      .map(
        ([must, is, word]) =>
          `${name} ${word} at ${formatSignificant(is, 5)} ${label} instead of ${formatPlain(must)} ${label}.`,
      )
      .join(' ');
  });
  const strangers = read
    .filter(({ name }) => !wanted.some((one) => one.name.trim().toLowerCase() === name.trim().toLowerCase()))
    .map(({ name }) => `${name} is set and stands in no register.`);
  const all = [...words, ...strangers].filter((text) => text !== '').join(' ');
  return all === ''
    ? { effect: '', percentOfSpan: null, matters: 'no' }
    : { effect: all, percentOfSpan: null, matters: 'yes' };
}

const plainEffect = (effect: string, matters: Matters): Effect => ({ effect, percentOfSpan: null, matters });

/** What a setting that reads otherwise does; null where it reads the same. */
function effectOf(wanted: WantedSetup, read: Setup, key: SettingKey): Effect | null {
  const unit = read.inputUnit ?? wanted.inputUnit;
  const asPressure = (value: number) => convertPressure(value, unit, wanted.inputUnit);
  const isSamePressure = (must: number, is: number) =>
    Math.abs(asPressure(is) - must) <= SAME * Math.abs(wanted.urv - wanted.lrv);
  switch (key) {
    case 'inputUnit':
      return unit === wanted.inputUnit ? null : unitEffect(wanted, unit);
    case 'lrv':
      if (read.lrv === null || isSamePressure(wanted.lrv, read.lrv)) return null;
      return rangeEffect(wanted, asPressure(read.lrv), wanted.urv);
    case 'urv':
      if (read.urv === null || isSamePressure(wanted.urv, read.urv)) return null;
      return rangeEffect(wanted, wanted.lrv, asPressure(read.urv));
    case 'dampingS':
      if (wanted.dampingS === read.dampingS) return null;
      return plainEffect(
        `${lag(wanted.dampingS ?? 0, read.dampingS ?? 0)}. The loop was tuned with the one that has to be set.`,
        'yes',
      );
    case 'displayDampingS':
      if (wanted.displayDampingS === read.displayDampingS) return null;
      return plainEffect(
        `${lag(wanted.displayDampingS ?? 0, read.displayDampingS ?? 0)}, on the display alone.`,
        'no',
      );
    case 'application':
      return wanted.application === read.application
        ? null
        : plainEffect(
            'It decides which transfer functions, scales and totals the instrument offers and shows.',
            'yes',
          );
    case 'transferFunction': {
      const found = read.transferFunction ?? wanted.transferFunction;
      if (JSON.stringify(found) === JSON.stringify(wanted.transferFunction)) return null;
      return ofOutput(wanted, shareOf(wanted, wanted.lrv, wanted.urv, found));
    }
    case 'displayUnit':
      return (wanted.displayUnit ?? '').trim() === (read.displayUnit ?? '').trim()
        ? null
        : plainEffect('Whoever reads the display takes the same figure for another quantity.', 'yes');
    case 'displayLow':
      return wanted.displayLow === read.displayLow
        ? null
        : displayEffect(wanted, { ...read, displayHigh: wanted.displayHigh });
    case 'displayHigh':
      return wanted.displayHigh === read.displayHigh
        ? null
        : displayEffect(wanted, { ...read, displayLow: wanted.displayLow });
    case 'startView':
      return wanted.startView === read.startView
        ? null
        : plainEffect(
            `After the supply comes on the display begins with ${read.startView ?? ''}. Nothing is measured otherwise.`,
            'no',
          );
    case 'drivenBy':
      return wanted.drivenBy === read.drivenBy ? null : drivenEffect(wanted, read.drivenBy);
    case 'switchingPoints': {
      const found = pointEffect(
        wanted.switchingPoints ?? [],
        read.switchingPoints ?? [],
        wanted.inputUnit,
        unit,
      );
      return found.effect === '' ? null : found;
    }
  }
}

function rangeEffect(wanted: WantedSetup, lrv: number, urv: number): Effect {
  if (Math.abs(urv - lrv) <= SAME * Math.abs(wanted.urv - wanted.lrv))
    return plainEffect('The range has no span: both ends are the same pressure.', 'yes');
  const { transferFunction: transfer } = wanted;
  // A knee that is met but for rounding is met, as in the transfer function itself.
  const isStarted = (t: number) => t >= jumpOf(transfer) * (1 - 1e-12);
  const own = (t: number) => (wanted.lrv + t * (wanted.urv - wanted.lrv) - lrv) / (urv - lrv);
  // In the sliver where one of the two is cut and the other not, the jump would be told and not the error.
  return ofOutput(
    wanted,
    shareOf(wanted, lrv, urv, transfer),
    (t) => t === 0 || isStarted(t) === isStarted(own(t)),
  );
}

/** Share of the input at which a transfer function jumps; below every range where it does not. */
function jumpOf(transfer: Transfer): number {
  if (transfer.kind === 'square-root-cut-off') return (transfer.cutOffPercentOfFlow / 100) ** 2;
  return transfer.kind === 'square-root-slope-one' ? transfer.linearToPercentOfInput / 100 : -Infinity;
}

/**
 * @param read null is what was not read; range values and switching points are in the unit that was read, or in the wanted
 *   one where none was
 * @throws CoreError `negative` for a tolerance below zero
 */
export function compareSetups(wanted: WantedSetup, read: Setup): SetupComparison {
  requireNotNegative('The tolerance', wanted.tolerancePercentOfSpan, 'tolerancePercentOfSpan');
  const differences: Difference[] = [];
  const [same, unread, unregistered]: [SettingKey[], SettingKey[], SettingKey[]] = [[], [], []];
  const shown: Setup = {
    ...read,
    inputUnit: read.inputUnit ?? wanted.inputUnit,
    displayUnit: read.displayUnit ?? wanted.displayUnit,
  };
  for (const [key, name] of SETTINGS) {
    if (wanted[key] === null) {
      if (read[key] !== null) unregistered.push(key);
      continue;
    }
    if (read[key] === null) {
      unread.push(key);
      continue;
    }
    const effect = effectOf(wanted, read, key);
    if (effect === null) same.push(key);
    else
      differences.push({
        key,
        name,
        wanted: settingWords(wanted, key),
        read: settingWords(shown, key),
        ...effect,
      });
  }
  return { differences, same, unread, unregistered };
}
