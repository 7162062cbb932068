/**
 * Units as people type and import them. A text that can mean several units is never guessed at: the error names the
 * choices. Case counts only where it must (mPa is not MPa).
 */
import { CoreError } from '../errors';
import type { PressureKind } from './kind';
import { unitLabel, type Unit } from './quantity';

export interface ParsedUnit {
  readonly unit: Unit;
  /** The kind of pressure that the text names, as in "psig"; null where it names none. */
  readonly kind: PressureKind | null;
}

type Reference = '4C' | '60F' | '68F' | '0C' | 'conventional';

/** Temperatures that name a column's reference, as they are written. */
const REFERENCES: readonly [RegExp, Reference][] = [
  [/^(?:4(?:\.0)?°?c|39(?:\.2)?°?f|3\.98°?c)$/, '4C'],
  [/^(?:60°?f|15\.6°?c|15\.56°?c)$/, '60F'],
  [/^(?:68°?f|20°?c)$/, '68F'],
  [/^(?:0°?c|32°?f)$/, '0C'],
  [/^(?:conv|conventional|1000kg\/m3|1000)$/, 'conventional'],
];

/** Columns of liquid, by the words for them without their reference. */
const COLUMNS: readonly [RegExp, Partial<Record<Reference, Unit>>][] = [
  [
    /^(?:in|inch|inches|")(?:h2o|wc|wg|water|ofwater|watercolumn|ofwatercolumn|watergauge|aq)$/,
    {
      '4C': 'inH2OAt4C',
      '60F': 'inH2OAt60F',
      '68F': 'inH2OAt68F',
      conventional: 'inH2OConventional',
    },
  ],
  [
    /^mm(?:h2o|wc|wg|ws|water|ofwater|ofwatercolumn)$/,
    { '4C': 'mmH2OAt4C', '68F': 'mmH2OAt68F', conventional: 'mmH2OConventional' },
  ],
  [
    /^cm(?:h2o|wc|wg|ws|water|ofwater|ofwatercolumn)$/,
    { '4C': 'cmH2OAt4C', '68F': 'cmH2OAt68F', conventional: 'cmH2OConventional' },
  ],
  [
    /^m(?:h2o|wc|wg|ws|water|ofwater|ofwatercolumn)$/,
    { '4C': 'mH2OAt4C', '68F': 'mH2OAt68F', conventional: 'mH2OConventional' },
  ],
  [
    /^(?:ft|foot|feet)(?:h2o|wc|wg|water|ofwater|ofwatercolumn)$/,
    {
      '4C': 'ftH2OAt4C',
      '60F': 'ftH2OAt60F',
      '68F': 'ftH2OAt68F',
      conventional: 'ftH2OConventional',
    },
  ],
  [/^(?:in|inch|inches|")(?:hg|mercury|ofmercury)$/, { '0C': 'inHgAt0C', '60F': 'inHgAt60F' }],
  [/^mm(?:hg|mercury|ofmercury)$/, { '0C': 'mmHgAt0C' }],
  [/^(?:micron|microns)(?:hg|mercury|ofmercury)?$/, { '0C': 'micronHgAt0C' }],
];

/** Spellings that mean one unit, in lower case, without blanks and dots. */
const SPELLINGS: Readonly<Record<string, Unit>> = {
  pa: 'Pa',
  pascal: 'Pa',
  pascals: 'Pa',
  hpa: 'hPa',
  kpa: 'kPa',
  microbar: 'microbar',
  ubar: 'microbar',
  µbar: 'microbar',
  μbar: 'microbar',
  mbar: 'mbar',
  millibar: 'mbar',
  bar: 'bar',
  psi: 'psi',
  'lbf/in2': 'psi',
  'ozf/in2': 'ozfPerIn2',
  'oz/in2': 'ozfPerIn2',
  osi: 'ozfPerIn2',
  'kgf/cm2': 'kgfPerCm2',
  'kg/cm2': 'kgfPerCm2',
  at: 'kgfPerCm2',
  'gf/cm2': 'gfPerCm2',
  'g/cm2': 'gfPerCm2',
  atm: 'atm',
  torr: 'Torr',
  mtorr: 'mTorr',
  millitorr: 'mTorr',
  'm3/s': 'm3PerS',
  'm3/min': 'm3PerMin',
  'm3/h': 'm3PerH',
  'm3/hr': 'm3PerH',
  'm3/d': 'm3PerD',
  'm3/day': 'm3PerD',
  'l/s': 'lPerS',
  'l/min': 'lPerMin',
  lpm: 'lPerMin',
  'l/h': 'lPerH',
  'usgal/min': 'usGalPerMin',
  usgpm: 'usGalPerMin',
  'usgal/h': 'usGalPerH',
  'impgal/min': 'impGalPerMin',
  'imperialgal/min': 'impGalPerMin',
  igpm: 'impGalPerMin',
  'impgal/h': 'impGalPerH',
  'millionusgal/d': 'millionUsGalPerD',
  'millionimperialgal/d': 'millionImpGalPerD',
  'ft3/s': 'ft3PerS',
  'ft3/min': 'ft3PerMin',
  cfm: 'ft3PerMin',
  acfm: 'ft3PerMin',
  'ft3/h': 'ft3PerH',
  'bbl/h': 'barrelPerH',
  'bbl/d': 'barrelPerD',
  'bbl/day': 'barrelPerD',
  bpd: 'barrelPerD',
  'kg/s': 'kgPerS',
  'kg/min': 'kgPerMin',
  'kg/h': 'kgPerH',
  'kg/hr': 'kgPerH',
  'g/s': 'gPerS',
  't/h': 'tPerH',
  't/d': 'tPerD',
  'lb/s': 'lbPerS',
  'lb/min': 'lbPerMin',
  'lb/h': 'lbPerH',
  'lb/hr': 'lbPerH',
  m: 'm',
  cm: 'cm',
  mm: 'mm',
  um: 'um',
  in: 'in',
  inch: 'in',
  inches: 'in',
  ft: 'ft',
  feet: 'ft',
  'kg/m3': 'kgPerM3',
  'g/cm3': 'gPerCm3',
  'g/ml': 'gPerCm3',
  'kg/l': 'kgPerL',
  'lb/ft3': 'lbPerFt3',
  'lb/usgal': 'lbPerUsGal',
  '°c': 'degC',
  c: 'degC',
  degc: 'degC',
  '°f': 'degF',
  f: 'degF',
  degf: 'degF',
  k: 'K',
  '°r': 'degR',
  a: 'A',
  ma: 'mA',
  ua: 'uA',
  v: 'V',
  mv: 'mV',
  uv: 'uV',
  ohm: 'ohm',
  ohms: 'ohm',
  ω: 'ohm',
  kohm: 'kohm',
  kω: 'kohm',
  '%': 'percent',
  percent: 'percent',
  '‰': 'perMille',
  ppm: 'ppm',
};

/** Spellings that mean several units. */
const ASKED: Readonly<Record<string, readonly Unit[]>> = {
  gpm: ['usGalPerMin', 'impGalPerMin'],
  'gal/min': ['usGalPerMin', 'impGalPerMin'],
  'gal/h': ['usGalPerH', 'impGalPerH'],
  gph: ['usGalPerH', 'impGalPerH'],
  mgd: ['millionUsGalPerD', 'millionImpGalPerD'],
  'mgal/d': ['millionUsGalPerD', 'millionImpGalPerD'],
  'mgal/day': ['millionUsGalPerD', 'millionImpGalPerD'],
  'ton/h': ['tPerH', 'shortTonPerH', 'longTonPerH'],
  'lb/gal': ['lbPerUsGal'],
  sg: ['relativeTo1000', 'relativeTo4C', 'relativeTo60F'],
};

/** Words for the kind of pressure behind a unit: "psig", "bar(a)", "kPa abs", "inHg vac". */
const KINDS: readonly [RegExp, PressureKind][] = [
  [/(?:\(g\)|gauge|gage)$/, 'gauge'],
  [/(?:\(a\)|absolute|abs)$/, 'absolute'],
  [/(?:\(d\)|differential|diff)$/, 'differential'],
  [/vacuum$|vac$/, 'vacuum'],
];
const SHORT_KIND: Readonly<Record<string, PressureKind>> = {
  psig: 'gauge',
  psia: 'absolute',
  psid: 'differential',
  barg: 'gauge',
  bara: 'absolute',
  bard: 'differential',
  mbarg: 'gauge',
  mbara: 'absolute',
  kpag: 'gauge',
  kpaa: 'absolute',
};

const plain = (text: string): string =>
  text
    .normalize('NFKC')
    .replace(/₂/g, '2')
    .replace(/³/g, '3')
    .replace(/[µμ]/g, 'u')
    .replace(/[”“″]|''/g, '"')
    .replace(/(?<=[a-z])\.(?!\d)/gi, '')
    .replace(/deg(?:rees?)?\s*(?=[cf]\b)/gi, '°')
    .replace(/[\s_]+/g, '');

/** mPa, MPa, mohm and Mohm differ only in case, as nothing else does. */
const BY_CASE: Readonly<Record<string, Unit>> = {
  MPa: 'MPa',
  Mohm: 'Mohm',
  MΩ: 'Mohm',
  mohm: 'mohm',
  mΩ: 'mohm',
};

/** A text that is also the name of an object's own machinery, such as "constructor", is no entry. */
const lookUp = <T>(table: Readonly<Record<string, T>>, text: string): T | undefined =>
  Object.hasOwn(table, text) ? table[text] : undefined;

function splitKind(text: string): readonly [rest: string, kind: PressureKind | null] {
  const lower = text.toLowerCase();
  const short = lookUp(SHORT_KIND, lower);
  if (short !== undefined) return [text.slice(0, -1), short];
  for (const [pattern, kind] of KINDS) {
    const rest = text.slice(0, lower.search(pattern));
    if (pattern.test(lower) && rest !== '') return [rest, kind];
  }
  return [text, null];
}

function column(words: string, text: string): Unit | null {
  const [, name = '', reference] = /^([^@(]*?)(?:(?:@|at(?=\d)|\()(.*?)\)?)?$/.exec(words) ?? [];
  const found = COLUMNS.find(([pattern]) => pattern.test(name.replace(/,?conventional$/, '')));
  if (found === undefined) return null;
  const units = found[1];
  const stated = name.endsWith('conventional') ? 'conventional' : reference;
  const choices = Object.values(units).map((unit) => unitLabel(unit));
  // mmHg and micron have one reference only, 0 degC, and are that unit by definition.
  const [only] = Object.values(units);
  if (stated === undefined && choices.length === 1 && only !== undefined) return only;
  const key = REFERENCES.find(([pattern]) => stated !== undefined && pattern.test(stated))?.[1];
  const unit = key === undefined ? undefined : units[key];
  if (unit === undefined) throw new CoreError({ code: 'ambiguous-unit', text, choices }, 'unit');
  return unit;
}

/**
 * Reads a unit.
 * @throws CoreError `ambiguous-unit` with the labels of the choices, `unknown-unit`
 * @example parseUnit('in H2O @ 68F') // { unit: 'inH2OAt68F', kind: null }
 * @example parseUnit('psig') // { unit: 'psi', kind: 'gauge' }
 */
export function parseUnit(text: string): ParsedUnit {
  const typed = plain(text.trim());
  const [rest, kind] = splitKind(typed);
  const exactCase = lookUp(BY_CASE, rest);
  if (exactCase !== undefined) return { unit: exactCase, kind };
  const lower = rest.toLowerCase();
  const asked = lookUp(ASKED, lower);
  if (asked !== undefined)
    throw new CoreError(
      { code: 'ambiguous-unit', text: text.trim(), choices: asked.map((unit) => unitLabel(unit)) },
      'unit',
    );
  // Written in lower case this is a million times one unit or a thousandth of the other.
  if (lower === 'mpa')
    throw new CoreError({ code: 'ambiguous-unit', text: text.trim(), choices: ['MPa', 'Pa'] }, 'unit');
  const unit = column(lower, text.trim()) ?? lookUp(SPELLINGS, lower);
  if (unit === undefined) throw new CoreError({ code: 'unknown-unit', text: text.trim() }, 'unit');
  return { unit, kind };
}
