/** Rows of a file as entries of the registers, each refused with all that is wrong about it. */
import { APPLICATIONS, DRIVING_VARIABLES, readSwitchingPoints, START_VIEWS } from '@barys/core/setup';
import { SIGNALS, type SignalName } from '@barys/core/signal';
import { PRESSURE_KINDS } from '@barys/core/units';
import { z } from 'zod';
import type { Body } from '../registers/body';
import { rangeMisfit } from '../registers/body';
import {
  configurationSchema,
  NO_POINTS,
  SETTING_KEYS,
  type NewConfiguration,
  type SettingOfRange,
} from '../registers/configuration';
import type { RegisterField } from '../registers/fields';
import {
  entryOfFlat,
  FILE_FIELDS,
  INSTRUMENT_FIELDS,
  instrumentSchema,
  usualHookUp,
  type InstrumentField,
  type NewInstrument,
} from '../registers/instrument';
import {
  certificateSchema,
  moduleSchema,
  REFERENCE_QUANTITIES,
  REFERENCE_STATES,
  standardSchema,
  type NewCertificate,
  type NewModule,
  type NewStandard,
} from '../registers/reference';
import { CellProblem, choiceCell, dateCell, numberCell, pressureUnitCell, same, type Answers } from './cells';

/** What rows are checked against. */
export interface Lookups {
  readonly bodies: ReadonlyMap<string, Body>;
  readonly procedures: ReadonlyMap<string, number>;
  readonly usualProcedure: number;
  /** Instruments that there are, with their numbers and bodies. */
  readonly instruments: ReadonlyMap<
    string,
    { readonly id: number; readonly body: Body; readonly lrv: number; readonly urv: number }
  >;
  readonly today: string;
  readonly site: string;
  /** The longest interval that each criticality allows, months. */
  readonly longestMonths: ReadonlyMap<string, number>;
}

/** One row's cells by field; a field that the file has no column for is empty. */
export type Cells = (field: string) => string;

/** Reads on after a wrong cell, so that a row tells all its problems at once. */
class Reader {
  readonly problems: CellProblem[] = [];
  constructor(
    readonly cell: Cells,
    readonly answers: Answers,
  ) {}
  private read<T>(what: () => T | null): T | null {
    try {
      return what();
    } catch (error) {
      if (!(error instanceof CellProblem)) throw error;
      this.problems.push(error);
      return null;
    }
  }
  number(field: string, name: string): number | null {
    return this.read(() => numberCell(this.cell(field), name));
  }
  date(field: string, name: string): string | null {
    return this.read(() => dateCell(this.cell(field), name, this.answers.dateOrder));
  }
  pressureUnit(field: string, name: string): string | null {
    return this.read(() => pressureUnitCell(this.cell(field), name, this.answers));
  }
  choice<T extends string>(field: string, name: string, choices: Readonly<Record<string, T>>): T | null {
    return this.read(() => choiceCell(this.cell(field), name, choices));
  }
  /** A cell as the field of a register reads it. */
  field(name: string, { heading, read = 'text' }: RegisterField): unknown {
    if (typeof read === 'object') return this.choice(name, heading, read);
    switch (read) {
      case 'text':
        return this.cell(name);
      case 'number':
        return this.number(name, heading);
      case 'date':
        return this.date(name, heading);
      case 'list':
        return this.cell(name)
          .split(/[;,]/)
          .map((part) => part.trim())
          .filter(Boolean);
    }
  }
  parse<T>(schema: z.ZodType<T>, entry: unknown): T | null {
    const { success, data, error } = schema.safeParse(entry);
    if (success) return data;
    // A cell that could not be read at all has said so already.
    if (this.problems.length === 0)
      for (const issue of error.issues) this.problems.push(new CellProblem(issue.message));
    return null;
  }
  refuse(message: string): void {
    this.problems.push(new CellProblem(message));
  }
}

const SIGNAL_CHOICES: Record<string, SignalName> = Object.fromEntries(
  (Object.keys(SIGNALS) as SignalName[]).flatMap((name) => [
    [name, name],
    [SIGNALS[name].label, name],
    [`${SIGNALS[name].low}-${SIGNALS[name].high} ${SIGNALS[name].unit}`, name],
  ]),
);

/** Made once: what is chosen from is known by the list itself. */
const CHOICES = {
  application: same(APPLICATIONS),
  startView: same(START_VIEWS),
  drivenBy: same(DRIVING_VARIABLES),
  pressureKind: same(PRESSURE_KINDS),
  quantity: same(REFERENCE_QUANTITIES),
  state: same(REFERENCE_STATES),
};

const TRANSFERS = {
  linear: 'linear',
  lin: 'linear',
  'square root': 'square-root',
  'square-root': 'square-root',
  root: 'square-root',
  sqrt: 'square-root',
  'square root, linear start': 'square-root-linear-start',
  'square root, slope one': 'square-root-slope-one',
} as const;

/** A transfer function with its figure: of flow for a linear start, of input for a slope of one. */
function transferOf(
  kind: (typeof TRANSFERS)[keyof typeof TRANSFERS],
  cutOff: number | null,
  linearTo: number | null,
): Record<string, unknown> {
  switch (kind) {
    case 'linear':
      return { kind };
    case 'square-root':
      return cutOff !== null && cutOff > 0
        ? { kind: 'square-root-cut-off', cutOffPercentOfFlow: cutOff }
        : { kind };
    case 'square-root-linear-start':
      return { kind, linearToPercentOfFlow: linearTo };
    case 'square-root-slope-one':
      return { kind, linearToPercentOfInput: linearTo };
  }
}

/** The cells of each setting; a file of ranges that leaves them empty leaves the setting as it is. */
const SETTING_CELLS: Readonly<Record<SettingOfRange, readonly string[]>> = {
  dampingS: ['damping'],
  scaleDivision: ['division'],
  displayDampingS: ['displayDamping'],
  application: ['applicationSet'],
  startView: ['startView'],
  drivenBy: ['drivenBy'],
  switchingPoints: ['switchingPoints'],
  transferFunction: ['transfer', 'cutOff', 'linearTo'],
};

function readSettings(reader: Reader): Record<SettingOfRange, unknown> {
  const transfer = reader.choice('transfer', 'Transfer function', TRANSFERS) ?? 'linear';
  const cutOff = reader.number('cutOff', 'Low-flow cut-off');
  const linearTo = reader.number('linearTo', 'Linear start');
  const points = reader.cell('switchingPoints');
  return {
    transferFunction: transferOf(transfer, cutOff, linearTo),
    dampingS: reader.number('damping', 'Damping') ?? 0,
    scaleDivision: reader.number('division', 'Scale division'),
    displayDampingS: reader.number('displayDamping', 'Damping of the display'),
    application: reader.choice('applicationSet', 'Application set', CHOICES.application),
    startView: reader.choice('startView', 'Start view', CHOICES.startView),
    drivenBy: reader.choice('drivenBy', 'Output driven by', CHOICES.drivenBy),
    switchingPoints: points.toLowerCase() === NO_POINTS ? [] : readSwitchingPoints(points),
  };
}

function readRange(reader: Reader, reason: string): Record<string, unknown> {
  const signal = reader.choice('signal', 'Signal', SIGNAL_CHOICES) ?? 'mA-4-20';
  const usual = SIGNALS[signal];
  const lrv = reader.number('lrv', 'LRV');
  const urv = reader.number('urv', 'URV');
  const unit = reader.pressureUnit('inputUnit', 'Unit');
  return {
    lrv,
    urv,
    inputUnit: unit,
    signal,
    outputLow: reader.number('outputLow', 'Output at 0 %') ?? usual.low,
    outputHigh: reader.number('outputHigh', 'Output at 100 %') ?? usual.high,
    outputUnit: reader.cell('outputUnit') || usual.unit,
    displayLow: reader.number('displayLow', 'Display at 0 %') ?? lrv,
    displayHigh: reader.number('displayHigh', 'Display at 100 %') ?? urv,
    displayUnit: reader.cell('displayUnit') || (unit ?? ''),
    ...readSettings(reader),
    reason,
  };
}

function checkFit(reader: Reader, body: Body, range: NewConfiguration): void {
  const misfit = rangeMisfit(body, range.inputUnit, range.lrv, range.urv);
  if (misfit !== null) reader.refuse(misfit);
  if (!body.outputs.includes(range.signal))
    reader.refuse(`The body ${body.model} does not have this output.`);
}

export interface InstrumentRow {
  readonly instrument: NewInstrument;
  readonly configuration: NewConfiguration;
}

/** Fields that have a rule of their own: two are looked up, one follows the body. */
const OWN_RULE: readonly InstrumentField[] = ['bodyId', 'procedureId', 'kind'];
const CELL_FIELDS = FILE_FIELDS.filter(([key]) => !OWN_RULE.includes(key));

/**
 * The fields of an instrument as their cells say.
 * @param usual what an empty cell stands for in this plant, where that is not the same everywhere
 */
function readFields(
  reader: Reader,
  usual: Readonly<Partial<Record<InstrumentField, unknown>>>,
): Record<InstrumentField, unknown> {
  const read: Partial<Record<InstrumentField, unknown>> = {};
  for (const [key, field] of CELL_FIELDS) {
    const found = reader.field(field.inFile ?? key, field);
    read[key] = found === '' || found === null ? (usual[key] ?? field.usual ?? found) : found;
  }
  return read as Record<InstrumentField, unknown>;
}

export function readInstrument(reader: Reader, lookups: Lookups): InstrumentRow | null {
  const model = reader.cell('body');
  const body = lookups.bodies.get(model.toLowerCase());
  if (body === undefined)
    reader.refuse(model === '' ? 'A body is needed.' : `There is no body "${model}". Enter it first.`);
  const procedure = reader.cell('procedure');
  const procedureId =
    procedure === '' ? lookups.usualProcedure : lookups.procedures.get(procedure.toLowerCase());
  if (procedureId === undefined) reader.refuse(`There is no procedure "${procedure}".`);
  const kind =
    reader.choice('kind', INSTRUMENT_FIELDS.kind.heading, CHOICES.pressureKind) ?? body?.kind ?? 'gauge';
  const usual = { site: lookups.site, hookUp: usualHookUp(body?.kind ?? 'gauge'), dueOn: lookups.today };
  const flat = Object.assign(readFields(reader, usual), {
    kind,
    bodyId: body?.id ?? 0,
    procedureId: procedureId ?? 0,
  });
  const range = readRange(reader, 'imported');
  const instrument = reader.parse(instrumentSchema, entryOfFlat(flat));
  const configuration = reader.parse(configurationSchema, range);
  if (body !== undefined && configuration !== null) checkFit(reader, body, configuration);
  const longest = lookups.longestMonths.get(instrument?.criticality ?? '') ?? Infinity;
  if (instrument !== null && instrument.intervalMonths > longest)
    reader.refuse(`The criticality ${instrument.criticality} allows at most ${longest} months.`);
  return instrument !== null && configuration !== null ? { instrument, configuration } : null;
}

export interface ConfigurationRow {
  readonly instrumentId: number;
  readonly tag: string;
  readonly configuration: NewConfiguration;
  /** Settings that the file leaves as they are. */
  readonly kept: readonly SettingOfRange[];
}

export function readConfiguration(reader: Reader, lookups: Lookups): ConfigurationRow | null {
  const tag = reader.cell('tag').toUpperCase();
  const known = lookups.instruments.get(tag);
  if (known === undefined) reader.refuse(`There is no instrument ${tag || 'without a tag'}.`);
  const configuration = reader.parse(
    configurationSchema,
    readRange(reader, reader.cell('reason') || 'imported'),
  );
  if (known !== undefined && configuration !== null) checkFit(reader, known.body, configuration);
  const kept = SETTING_KEYS.filter((key) => SETTING_CELLS[key].every((cell) => reader.cell(cell) === ''));
  return known !== undefined && configuration !== null
    ? { instrumentId: known.id, tag, configuration, kept }
    : null;
}

export interface ReferenceRow {
  readonly standard: NewStandard;
  readonly module: NewModule;
  readonly certificate: NewCertificate | null;
}

export function readReference(reader: Reader): ReferenceRow | null {
  const quantity =
    reader.choice('quantity', 'Measures', CHOICES.quantity) ?? quantityOfUnit(reader.cell('unit'));
  const standard = reader.parse(standardSchema, {
    tag: reader.cell('tag'),
    description: reader.cell('description'),
    serial: reader.cell('serial'),
    state: reader.choice('state', 'State', CHOICES.state) ?? 'in use',
    location: reader.cell('location'),
  });
  const module = reader.parse(moduleSchema, {
    name: reader.cell('module'),
    quantity,
    kind: reader.choice('kind', 'Kind of pressure', CHOICES.pressureKind) ?? 'gauge',
    unit: quantity === 'pressure' ? (reader.pressureUnit('unit', 'Unit') ?? '') : reader.cell('unit'),
    rangeLow: reader.number('rangeLow', 'Range from'),
    rangeHigh: reader.number('rangeHigh', 'Range to'),
    resolution: reader.number('resolution', 'Resolution'),
    percentOfReading: reader.number('percentOfReading', '% of reading') ?? 0,
    percentOfRange: reader.number('percentOfRange', '% of range') ?? 0,
    floor: reader.number('floor', 'Floor') ?? 0,
    driftPercentOfReadingPerYear: 0,
    percentOfReadingPerK: 0,
    isActive: true,
  });
  const number = reader.cell('certificate');
  const certificate =
    number === ''
      ? null
      : reader.parse(certificateSchema, {
          number,
          laboratory: reader.cell('laboratory'),
          calibratedOn: reader.date('calibrated', 'Calibrated on') ?? '',
          dueOn: reader.date('due', 'Due') ?? '',
          uncertaintyPercentOfRange: reader.number('uncertainty', 'Expanded uncertainty'),
        });
  return standard !== null && module !== null ? { standard, module, certificate } : null;
}

function quantityOfUnit(unit: string): NewModule['quantity'] {
  if (unit === 'mA') return 'current';
  return unit === 'V' ? 'voltage' : 'pressure';
}

const resultSchema = z.object({
  doneOn: z.iso.date('A date is needed.'),
  applied: z.number({ error: 'The applied value is a number.' }),
  output: z.number({ error: 'The reading is a number.' }),
  nominalPercent: z
    .number()
    .min(-50, 'The point is from -50 to 150 %.')
    .max(150, 'The point is from -50 to 150 %.'),
  kind: z.enum(['as-found', 'as-left']),
  direction: z.enum(['up', 'down']),
  doneBy: z.string().max(60),
  certificate: z.string().max(60),
  standard: z.string().max(60),
});
export type ResultRow = z.infer<typeof resultSchema> & {
  readonly instrumentId: number;
  readonly tag: string;
};

const RUN_KINDS = {
  'as found': 'as-found',
  found: 'as-found',
  before: 'as-found',
  'as left': 'as-left',
  left: 'as-left',
  after: 'as-left',
} as const;
const DIRECTIONS = {
  up: 'up',
  rising: 'up',
  increasing: 'up',
  down: 'down',
  falling: 'down',
  decreasing: 'down',
} as const;

export function readResult(reader: Reader, lookups: Lookups): ResultRow | null {
  const tag = reader.cell('tag').toUpperCase();
  const known = lookups.instruments.get(tag);
  if (known === undefined) reader.refuse(`There is no instrument ${tag || 'without a tag'}.`);
  const applied = reader.number('applied', 'Applied');
  const doneOn = reader.date('date', 'Date');
  if (doneOn !== null && doneOn > lookups.today) reader.refuse(`The date ${doneOn} has not come yet.`);
  const result = reader.parse(resultSchema, {
    doneOn,
    applied,
    output: reader.number('output', 'Reading'),
    // Without a column for it, the point is where the applied value lies in the range in force.
    nominalPercent:
      reader.number('nominal', 'Point') ??
      (known === undefined || applied === null
        ? 0
        : Number((((applied - known.lrv) / (known.urv - known.lrv)) * 100).toFixed(1))),
    kind: reader.choice('kind', 'As found or as left', RUN_KINDS) ?? 'as-found',
    direction: reader.choice('direction', 'Direction', DIRECTIONS) ?? 'up',
    doneBy: reader.cell('doneBy'),
    certificate: reader.cell('certificate'),
    standard: reader.cell('standard').toUpperCase(),
  });
  return known !== undefined && result !== null ? { ...result, instrumentId: known.id, tag } : null;
}

export { Reader };
