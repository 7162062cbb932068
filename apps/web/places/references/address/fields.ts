/** How a reference is reached and spoken to, as it is typed. */
import {
  CONTROLLER_DRIVER,
  INDICATOR_DRIVER,
  METER_DRIVER,
  PARITIES,
  RECEIVER_DRIVER,
  VOLTMETER_DRIVER,
  type Driver,
  type Question,
  type Wire,
} from '@barys/core/port';
import { unitLabel, unitsOf } from '@barys/core/units';
import type { FieldSpec } from '@/ui/FieldGrid';
import { typedNumber } from '@/ui/readNumber';

const WAY_FIELDS = {
  bench: '',
  speaks: 'text',
  kind: 'tcp',
  host: '',
  port: '5025',
  path: '',
  baud: '9600',
  format: '8 none 1',
  pollingAddress: '0',
};
const DRIVER_FIELDS = {
  name: '',
  identifyAsk: '*IDN?',
  identifyAnswer: '(?<maker>[^,]*),(?<model>[^,]*),(?<serial>[^,]*),(?<firmware>[^,]*)',
  pressureAsk: '',
  pressureAnswer: '',
  pressureUnit: 'said',
  currentAsk: '',
  currentAnswer: '',
  currentUnit: 'said',
  voltageAsk: '',
  voltageAnswer: '',
  voltageUnit: 'said',
  displayAsk: '',
  displayAnswer: '',
  displayUnit: 'said',
  units: '',
  begin: '',
  set: '',
  hold: '',
  vent: '',
  errorsAsk: '',
  errorsAnswer: '',
  answerMs: '1000',
  pauseMs: '10',
};
export const ADDRESS_FIELDS = { ...WAY_FIELDS, ...DRIVER_FIELDS };
export type AddressFields = Readonly<typeof ADDRESS_FIELDS>;
type Spec = FieldSpec<keyof AddressFields>;

/** Drivers to begin with; none is that of a make. */
export const SHIPPED: readonly Driver[] = [
  CONTROLLER_DRIVER,
  INDICATOR_DRIVER,
  METER_DRIVER,
  RECEIVER_DRIVER,
  VOLTMETER_DRIVER,
];

const FORMATS = PARITIES.flatMap((parity) =>
  ([8, 7] as const).flatMap((bits) =>
    ([1, 2] as const).map(
      (stop) =>
        [
          `${bits} ${parity} ${stop}`,
          `${bits} bits, parity ${parity}, ${stop} stop bit${stop === 1 ? '' : 's'}`,
        ] as const,
    ),
  ),
);

const TCP: readonly Spec[] = [
  { name: 'host', label: 'Name or address', width: 4, path: 'at.host' },
  { name: 'port', label: 'Port', kind: 'number', width: 2, path: 'at.port' },
];
const SERIAL: readonly Spec[] = [
  {
    name: 'path',
    label: 'Port of the link’s machine',
    width: 3,
    path: 'at.path',
    help: 'Such as /dev/ttyUSB0 or COM3',
  },
  { name: 'baud', label: 'Rate, baud', kind: 'number', width: 2, path: 'at.baud' },
  { name: 'format', label: 'Format', options: FORMATS, width: 4 },
];

const HART: readonly Spec[] = [
  {
    name: 'pollingAddress',
    label: 'Polling address',
    kind: 'number',
    width: 3,
    path: 'pollingAddress',
    help: '0 where it is alone on its loop',
  },
];
const WAYS = {
  text: [
    ['tcp', 'network (TCP)'],
    ['serial', 'serial port'],
  ],
  'HART-IP': [
    ['tcp', 'network (TCP)'],
    ['udp', 'network (UDP)'],
  ],
} as const;

/** Where it is; a network has other fields than a serial port. */
export const waySpecs = (
  { speaks, kind }: Pick<AddressFields, 'speaks' | 'kind'>,
  benches: readonly { readonly id: number; readonly name: string }[],
): readonly Spec[] => [
  {
    name: 'bench',
    label: 'Bench whose link reaches it',
    options: benches.map(({ id, name }) => [String(id), name] as const),
    width: 3,
  },
  {
    name: 'speaks',
    label: 'It speaks',
    options: [
      ['text', 'lines of text'],
      ['HART-IP', 'HART over a network'],
    ],
    width: 3,
  },
  {
    name: 'kind',
    label: 'By',
    options: WAYS[speaks === 'HART-IP' ? speaks : 'text'],
    width: 2,
  },
  ...(kind === 'serial' ? SERIAL : TCP),
  ...(speaks === 'HART-IP' ? HART : []),
];

/** What changes with what it speaks: the port by custom, and ways that the other does not have. */
export const fieldsOfSpeech = (speaks: string): Partial<AddressFields> => ({
  speaks,
  kind: 'tcp',
  port: speaks === 'HART-IP' ? '5094' : '5025',
});

const SAID = 'said';
const UNSAID = [[SAID, 'said in the answer'] as const];

/** How one quantity is asked for, what answers look like, and in which unit they are. */
const readSpecs = (
  channel: 'pressure' | 'current' | 'voltage' | 'display',
  label: string,
  units: readonly (readonly [unit: string, words: string])[],
  help = '',
): readonly Spec[] => [
  { name: `${channel}Ask`, label, width: 4, path: `driver.reads.${channel}.ask` },
  {
    name: `${channel}Answer`,
    label: 'Pattern of the answer, with (?<value>…)',
    width: 5,
    path: `driver.reads.${channel}.answer`,
    ...(help === '' ? {} : { help }),
  },
  {
    name: `${channel}Unit`,
    label: 'Its unit',
    width: 3,
    path: `driver.reads.${channel}.unit`,
    options: [...UNSAID, ...units],
  },
];

export const DRIVER_SPECS: readonly Spec[] = [
  { name: 'name', label: 'Name of the driver', width: 6, path: 'driver.name' },
  { name: 'answerMs', label: 'Answer within, ms', kind: 'number', width: 3, path: 'driver.answerMs' },
  { name: 'pauseMs', label: 'Pause between commands, ms', kind: 'number', width: 3, path: 'driver.pauseMs' },
  { name: 'identifyAsk', label: 'Ask who it is', width: 4, path: 'driver.identify.ask' },
  { name: 'identifyAnswer', label: 'Pattern of the answer', width: 8, path: 'driver.identify.answer' },
  ...readSpecs(
    'pressure',
    'Ask for the pressure',
    unitsOf('pressure').map((unit) => [unit, unitLabel(unit)] as const),
    '(?<unit>…) and (?<stable>…) where it says them',
  ),
  ...readSpecs('current', 'Ask for the current', [
    ['A', 'A'],
    ['mA', 'mA'],
  ]),
  ...readSpecs('voltage', 'Ask for a voltage', [
    ['V', 'V'],
    ['mV', 'mV'],
  ]),
  ...readSpecs(
    'display',
    'Ask what it shows',
    [['%', '% of its scale']],
    'Of a receiver at the end of a loop',
  ),
  {
    name: 'units',
    label: 'Its units, a line each',
    kind: 'lines',
    width: 6,
    path: 'driver.units',
    help: 'As it writes them = as Barys does, such as KPA = kPa. It is set in the first.',
  },
  {
    name: 'begin',
    label: 'What it is told first, a line each',
    kind: 'lines',
    width: 6,
    path: 'driver.begin',
    help: 'Once for each connection, such as its unit',
  },
  {
    name: 'set',
    label: 'To set a pressure, a line each',
    kind: 'lines',
    width: 4,
    path: 'driver.set',
    help: 'With {value}, and {rate} and {unit} where it takes them. Empty where it only measures.',
  },
  { name: 'hold', label: 'To shut it in', kind: 'lines', width: 4, path: 'driver.hold' },
  { name: 'vent', label: 'To vent', kind: 'lines', width: 4, path: 'driver.vent' },
  { name: 'errorsAsk', label: 'Ask for its errors', width: 4, path: 'driver.errors.ask' },
  {
    name: 'errorsAnswer',
    label: 'Pattern of the answer that says none',
    width: 8,
    path: 'driver.errors.answer',
  },
];

const lines = (commands: readonly string[] | null): string => (commands ?? []).join('\n');

export const fieldsOfDriver = (driver: Driver): Readonly<typeof DRIVER_FIELDS> => {
  const { pressure, current, voltage, display } = driver.reads;
  return {
    name: driver.name,
    identifyAsk: driver.identify.ask,
    identifyAnswer: driver.identify.answer,
    pressureAsk: pressure?.ask ?? '',
    pressureAnswer: pressure?.answer ?? '',
    pressureUnit: pressure?.unit ?? SAID,
    currentAsk: current?.ask ?? '',
    currentAnswer: current?.answer ?? '',
    currentUnit: current?.unit ?? SAID,
    voltageAsk: voltage?.ask ?? '',
    voltageAnswer: voltage?.answer ?? '',
    voltageUnit: voltage?.unit ?? SAID,
    displayAsk: display?.ask ?? '',
    displayAnswer: display?.answer ?? '',
    displayUnit: display?.unit ?? SAID,
    units: lines(driver.units.map(({ theirs, ours }) => `${theirs} = ${ours}`)),
    begin: lines(driver.begin),
    set: lines(driver.set),
    hold: lines(driver.hold),
    vent: lines(driver.vent),
    errorsAsk: driver.errors?.ask ?? '',
    errorsAnswer: driver.errors?.answer ?? '',
    answerMs: String(driver.answerMs),
    pauseMs: String(driver.pauseMs),
  };
};

export const fieldsOfAddress = (bench: number, wire: Wire): AddressFields => {
  const { at, speaks } = wire;
  return {
    ...ADDRESS_FIELDS,
    bench: String(bench),
    speaks,
    kind: at.kind,
    ...(at.kind === 'serial'
      ? { path: at.path, baud: String(at.baud), format: `${at.dataBits} ${at.parity} ${at.stopBits}` }
      : { host: at.host, port: String(at.port) }),
    ...(wire.speaks === 'text'
      ? fieldsOfDriver(wire.driver)
      : { pollingAddress: String(wire.pollingAddress) }),
  };
};

const commandsOf = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);
const commandsOrNone = (text: string): string[] | null => {
  const commands = commandsOf(text);
  return commands.length === 0 ? null : commands;
};

/** A question that is not filled in at all is not asked. */
const questionOf = (ask: string, answer: string): Question | null =>
  ask.trim() === '' && answer.trim() === '' ? null : { ask: ask.trim(), answer: answer.trim() };

function readOf(ask: string, answer: string, unit: string) {
  const question = questionOf(ask, answer);
  return question === null ? undefined : { ...question, unit: unit === SAID ? null : unit };
}

const driverOf = (fields: AddressFields) => {
  const pressure = readOf(fields.pressureAsk, fields.pressureAnswer, fields.pressureUnit);
  const current = readOf(fields.currentAsk, fields.currentAnswer, fields.currentUnit);
  const voltage = readOf(fields.voltageAsk, fields.voltageAnswer, fields.voltageUnit);
  const display = readOf(fields.displayAsk, fields.displayAnswer, fields.displayUnit);
  return {
    name: fields.name,
    identify: { ask: fields.identifyAsk.trim(), answer: fields.identifyAnswer.trim() },
    reads: {
      ...(pressure && { pressure }),
      ...(current && { current }),
      ...(voltage && { voltage }),
      ...(display && { display }),
    },
    units: commandsOf(fields.units).map((line) => {
      const [theirs = '', ours = ''] = line.split('=');
      return { theirs: theirs.trim(), ours: ours.trim() };
    }),
    begin: commandsOf(fields.begin),
    set: commandsOrNone(fields.set),
    hold: commandsOrNone(fields.hold),
    vent: commandsOrNone(fields.vent),
    errors: questionOf(fields.errorsAsk, fields.errorsAnswer),
    answerMs: typedNumber(fields.answerMs),
    pauseMs: typedNumber(fields.pauseMs),
  };
};

/** What the schema of a wire reads. */
export function wireOfFields(fields: AddressFields): Record<string, unknown> {
  const network = { kind: fields.kind, host: fields.host, port: typedNumber(fields.port) };
  if (fields.speaks === 'HART-IP')
    return { speaks: 'HART-IP', at: network, pollingAddress: typedNumber(fields.pollingAddress) };
  const [dataBits, parity, stopBits] = fields.format.split(' ');
  return {
    speaks: 'text',
    at:
      fields.kind === 'tcp'
        ? network
        : {
            kind: 'serial',
            path: fields.path,
            baud: typedNumber(fields.baud),
            dataBits: Number(dataBits),
            parity,
            stopBits: Number(stopBits),
          },
    driver: driverOf(fields),
  };
}
