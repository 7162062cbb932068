/**
 * What was read at an instrument against what has to be set: each difference, what it does to the reading in figures, and
 * whether it matters. A difference is judged alone, with all else as it has to be. Common practice, on the relations of
 * `signal`.
 */
import { requireNotNegative } from '../errors';
import { formatPlain, formatSignificant } from '../text';
import { convertPressure, PRESSURE_UNITS, type PressureUnit } from '../units';
import { farthestApart, madeAsRead, SAME, type Apart, type Made } from './apart';
import {
  SETTINGS,
  settingWords,
  type SettingKey,
  type Setup,
  type SwitchingPoint,
  type WantedSetup,
} from './settings';

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

function apartWords(wanted: WantedSetup, { applied, must, is, percent }: Apart): string {
  const output = (part: number) =>
    `${formatSignificant(wanted.outputLow + part * (wanted.outputHigh - wanted.outputLow), 5)} ${wanted.outputUnit}`;
  return (
    `At ${formatSignificant(applied, 5)} ${PRESSURE_UNITS[wanted.inputUnit].label} the output is ${output(is)}` +
    ` instead of ${output(must)}: ${percent > 0 ? '+' : ''}${formatSignificant(percent, 3)} % of span.`
  );
}

type Effect = Pick<Difference, 'effect' | 'percentOfSpan' | 'matters'>;

function outputEffect(wanted: WantedSetup, made: Made, key: SettingKey): Effect {
  const apart = farthestApart(wanted, made, key);
  if (Math.abs(apart.percent) < SAME * 100)
    return { effect: 'The output is the same.', percentOfSpan: null, matters: 'no' };
  // A verdict on the limit is not put out of it by the last digit.
  const isBeyond = Math.abs(apart.percent) > wanted.tolerancePercentOfSpan * (1 + SAME);
  return {
    effect: apartWords(wanted, apart),
    percentOfSpan: apart.percent,
    matters: isBeyond ? 'yes' : 'little',
  };
}

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
function drivenEffect(wanted: WantedSetup, read: Setup): Effect {
  const made = madeAsRead(wanted, read, 'drivenBy');
  if (made === null)
    return plainEffect(
      `The output follows the ${read.drivenBy ?? ''}: its own range and transfer function count.`,
      'yes',
    );
  const apart = farthestApart(wanted, made, 'drivenBy');
  const why =
    read.drivenBy === 'scaled variable'
      ? 'Where the scaled variable takes the root too, it is taken twice'
      : 'Where only the scaled variable takes the root, it is not taken';
  return { effect: `${why}. ${apartWords(wanted, apart)}`, percentOfSpan: apart.percent, matters: 'yes' };
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
    case 'urv': {
      const found = read[key];
      return found === null || isSamePressure(wanted[key], found) ? null : rangeEffect(wanted, read, key);
    }
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
      if (JSON.stringify(read.transferFunction) === JSON.stringify(wanted.transferFunction)) return null;
      const made = madeAsRead(wanted, read, key);
      return made === null ? null : outputEffect(wanted, made, key);
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
      return wanted.drivenBy === read.drivenBy ? null : drivenEffect(wanted, read);
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

function rangeEffect(wanted: WantedSetup, read: Setup, key: 'lrv' | 'urv'): Effect {
  const made = madeAsRead(wanted, read, key);
  return made === null
    ? plainEffect('The range has no span: both ends are the same pressure.', 'yes')
    : outputEffect(wanted, made, key);
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
