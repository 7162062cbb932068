/** A lesson as the screens of a job know a run: what it is made with, and what was read at its bench. */
import type { AdjustableBody } from '@barys/core/adjust';
import { transferOf, type SignalName } from '@barys/core/signal';
import { formatFixed } from '@barys/core/text';
import type { Lesson, Pass, PracticeBench, Taken } from '@barys/rig/practice';
import type { MadeWith, Reading, Run, RunKind } from '@barys/store/runs';
import type { ShownMark, ShownRun } from '@/places/jobs/run/types';

/** Its kind decides what can be adjusted, as a body of the register does. */
const BODY: Readonly<Record<PracticeBench['world']['tested']['kind'], AdjustableBody>> = {
  'analog transmitter': { technology: 'analog', trims: [] },
  'force balance': { technology: 'pneumatic', trims: ['zero screw', 'range wheel'] },
  'smart transmitter': { technology: 'smart', trims: [] },
  'digital gauge': { technology: 'digital gauge', trims: [] },
  'dial gauge': { technology: 'dial gauge', trims: [] },
  'level gauge': { technology: 'smart', trims: [] },
  'heat-loss gauge': { technology: 'digital gauge', trims: ['zero trim', 'full scale'] },
  'capacitance gauge': { technology: 'digital gauge', trims: ['zero trim'] },
};
export const bodyOf = ({ world }: PracticeBench): AdjustableBody => BODY[world.tested.kind];

const SIGNAL: Readonly<Record<string, SignalName>> = { psi: 'psi-3-15', kPa: 'indication', Pa: 'indication' };

/** What an eye resolves of a scale: two of these are a division. */
const DIVISION: Readonly<Partial<Record<Lesson['readBy'], number>>> = { needle: 1, meniscus: 0.02 };

const standard = (tag: string, unit: string, rangeHigh: number, resolution: number, floor: number) => ({
  tag,
  name: '',
  description: 'of the practice bench',
  serial: '',
  unit,
  rangeLow: unit === 'mA' ? 0 : -rangeHigh,
  rangeHigh,
  resolution,
  certificate: '',
  calibratedOn: null,
  dueOn: null,
  percentOfReading: 0,
  percentOfRange: 0,
  floor,
  driftPercentOfReadingPerYear: 0,
  percentOfReadingPerK: 0,
  uncertaintyPercentOfRange: null,
  results: [],
});

export interface LessonPoint {
  readonly percent: number;
  readonly way: 'up' | 'down';
}
/** Up and down, the top once. */
export const pointsOf = ({ points }: Lesson): readonly LessonPoint[] => [
  ...points.map((percent) => ({ percent, way: 'up' as const })),
  ...[...points]
    .reverse()
    .slice(1)
    .map((percent) => ({ percent, way: 'down' as const })),
];

/** The body and what is set, as the register has them of an instrument. */
function registered(bench: PracticeBench): Pick<MadeWith, 'body' | 'configuration'> {
  const { lesson, world } = bench;
  const { range, unit, outputUnit } = lesson;
  const { tested } = world;
  // No lesson has a table.
  const transfer = transferOf(range);
  const limit = tested.kind === 'smart transmitter' ? tested.smart.sensor.upperLimit : 2 * range.urv;
  const current = range.outputHigh === 50 ? 'mA-10-50' : 'mA-4-20';
  return {
    body: {
      model: tested.kind,
      unit,
      lowerRangeLimit: -limit,
      upperRangeLimit: limit,
      leastSpan: (range.urv - range.lrv) / 100,
      greatestSpan: null,
      technology: bodyOf(bench).technology,
      trims: [...bodyOf(bench).trims],
    },
    configuration: {
      version: 1,
      inputUnit: unit,
      lrv: range.lrv,
      urv: range.urv,
      signal: outputUnit === 'mA' ? current : (SIGNAL[outputUnit] ?? 'indication'),
      outputUnit,
      outputLow: range.outputLow,
      outputHigh: range.outputHigh,
      transferFunction: transfer.kind === 'table' ? { kind: 'linear' } : transfer,
      dampingS: 0,
      displayUnit: unit,
      displayLow: range.lrv,
      displayHigh: range.urv,
      scaleDivision: DIVISION[lesson.readBy] ?? null,
      displayDampingS: null,
      application: null,
      startView: null,
      drivenBy: null,
      switchingPoints: [],
    },
  };
}

/** What a run of a lesson is made with. */
export function madeWithOf(bench: PracticeBench): MadeWith {
  const { lesson } = bench;
  const { range, unit, limitOf, limitPercent, referenceLimit, second } = lesson;
  const span = range.urv - range.lrv;
  const isMilliamp = lesson.outputUnit === 'mA';
  return {
    ...registered(bench),
    procedure: null,
    loop: null,
    tolerance: {
      percentOfSpan: limitOf === 'span' ? limitPercent : 0,
      middlePercentOfSpan: null,
      percentOfReading: limitOf === 'reading' ? limitPercent : 0,
      adjustAbovePercentOfLimit: lesson.adjustAbovePercent,
    },
    decisionRule: { kind: 'simple' },
    school: 'past the adjust limit',
    judgesBeyondUncertainty: true,
    leastRatio: 4,
    settle: null,
    approach: null,
    points: pointsOf(lesson).map(({ percent, way }, place) => {
      const nominalApplied = Number((range.lrv + (span * percent) / 100).toPrecision(12));
      return {
        position: place + 1,
        cycle: 1,
        direction: way,
        nominalPercent: percent,
        nominalApplied,
        standard:
          second !== null && nominalApplied > second.fineLimit ? ('second' as const) : ('first' as const),
      };
    }),
    pressureReference:
      second === null
        ? standard('the reference', unit, referenceLimit, 0.001, span * 0.0001)
        : standard('the fine reference', unit, second.fineLimit, 0.001, 0.01),
    secondReference: second === null ? null : standard('the coarse reference', unit, referenceLimit, 1, 50),
    meter: isMilliamp ? standard('the meter', 'mA', range.outputHigh * 1.5, 0.001, 0.0005) : null,
    head: 0,
    columns: lesson.readsDigital ? ['digital'] : lesson.readBy === 'needle' ? ['before-tap'] : [],
    secondIndication: '',
    secondScale: null,
    takenOn: '2026-01-01',
    driftsToReading: false,
    ambient: { temperatureC: 20, humidityPercent: 50, barometerHpa: 1013.25 },
  };
}

const KIND: Readonly<Record<Pass, RunKind>> = { 'as found': 'as-found', 'as left': 'as-left' };

/** The last reading at each point of a pass, as the job's screens have it. */
function readingsOf({ lesson, taken }: PracticeBench, pass: Pass): Reading[] {
  return pointsOf(lesson).flatMap(({ percent, way }, place) => {
    const one = taken.findLast(
      (reading) => reading.pass === pass && reading.percent === percent && reading.way === way,
    );
    return one === undefined || one.output === null ? [] : [readingOf(one, place + 1)];
  });
}

/** What a script took is said with the digits of the bench. */
const said = (value: number): string => formatFixed(value, 3).replace('\u2212', '-');

function readingOf({ reference, output, wrote }: Taken, position: number): Reading {
  const typed = wrote?.typed;
  return {
    id: position,
    position,
    applied: reference,
    appliedText: typed?.applied ?? said(reference),
    appliedAs: 'read',
    output: output ?? 0,
    outputText: typed?.output ?? said(output ?? 0),
    more: typed?.more ?? {},
    takenAt: null,
    day: '2026-01-01',
    readBy: '',
    readAt: new Date(0),
    source: null,
  };
}

/** Marks that were left at the points of a pass. */
const marksOf = ({ lesson, done }: PracticeBench, pass: Pass): ShownMark[] =>
  done.flatMap(({ act }) => {
    if (act.do !== 'mark' || act.pass !== pass) return [];
    const place = pointsOf(lesson).findIndex(
      ({ percent, way }) => percent === act.percent && way === act.way,
    );
    return [
      {
        position: place + 1,
        kind: act.mark,
        appliedText: act.applied,
        outputText: act.output,
        remark: act.remark,
      },
    ];
  });

/** A pass of a lesson as the run of a job. */
export function runOf(bench: PracticeBench, pass: Pass): Run {
  return {
    id: pass === 'as found' ? 1 : 2,
    kind: KIND[pass],
    pass: 1,
    madeWith: madeWithOf(bench),
    connectionId: null,
    startedBy: '',
    startedAt: new Date(0),
    thrownAway: null,
    readings: readingsOf(bench, pass),
    superseded: [],
    marks: marksOf(bench, pass).map((mark, place) => ({
      ...mark,
      id: place + 1,
      runId: 1,
      markedBy: '',
      markedAt: new Date(0),
    })),
  };
}

/** The same as the run screen has it. */
export function shownRunOf(bench: PracticeBench, pass: Pass): ShownRun {
  const { id, kind, madeWith, readings, marks } = runOf(bench, pass);
  return { id, kind, madeWith, marks, readings: readings.map((one) => ({ ...one, savedClock: '' })) };
}
