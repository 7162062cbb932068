/** Connecting: which standards fit, what is checked first, and the run that begins with it. */
import { liquidHead, STANDARD_GRAVITY_M_PER_S2 } from '@barys/core/corrections';
import { formatPlain } from '@barys/core/text';
import { convertPressure, PRESSURE_UNITS } from '@barys/core/units';
import { appendToTrail } from '../db/audit';
import type { Queryable } from '../db/database';
import { StoreError } from '../db/errors';
import { instrumentOfJob } from './instrument-copy';
import { toleranceOf, type Instrument } from '../registers/instrument';
import { lockJobAt, moveJob } from './move';
import { isTooFast, leakOf, type Leak, type LeakEntry } from './leak';
import { requireWorker } from '../people/people';
import type { Actor } from '../people/actor';
import {
  appliedPoints,
  betterStandard,
  fitOf,
  measuresSide,
  quantityWanted,
  whyHeld,
  type Side,
  type Use,
} from '../runs/fit';
import type { Reference } from '../registers/reference';
import { findReference } from '../registers/references';
import { currentPass, runsOfJob } from '../runs/load';
import { startRun } from '../runs/start';
import type { RunKind, SecondScale } from '../runs/copy';
import { answersOf, questionsAt, unanswered } from './questions';

import {
  CONNECT_CHECKS,
  connectionOfJob,
  type Ambient,
  type ConnectCheck,
  type Connection,
  type WorkPlace,
} from './connection';

export interface NewConnection {
  /** Numbers of the modules used. */
  readonly pressureReference: number;
  readonly secondReference: number | null;
  readonly meter: number | null;
  /** Why a reference is used that does not fit; needed when one is. */
  readonly referenceReason: string;
  readonly ambient: Ambient;
  readonly place: WorkPlace;
  readonly checksDone: readonly ConnectCheck[];
  /** Null where no figures were taken. */
  readonly leak: LeakEntry | null;
  readonly heightM: number;
  readonly liquidDensityKgPerM3: number;
  readonly readsDigital: boolean;
  readonly secondIndication: string;
  /** What it shows over the range, and its own tolerance; null where it is only noted. */
  readonly secondScale?: SecondScale | null;
  /** Answers to the questions of the procedure, by their key. */
  readonly given: Readonly<Record<string, string>>;
  /** Why a check was left out, or a leak accepted; needed when one is. */
  readonly note: string;
}

/** Air outside, which lifts the line as it lifts all else: common practice at room temperature, sea level. */
const AIR_DENSITY_KG_PER_M3 = 1.2;

/** What a line of liquid up to the instrument takes from what it sees, in the input unit. Gas is left out. */
function headOf(
  { configuration, kind }: Instrument,
  { heightM, liquidDensityKgPerM3 }: Pick<NewConnection, 'heightM' | 'liquidDensityKgPerM3'>,
): number {
  if (heightM === 0 || liquidDensityKgPerM3 === 0) return 0;
  const { correctionPa } = liquidHead({
    pressurePa: 0,
    liquidDensityKgPerM3,
    airDensityKgPerM3: kind === 'gauge' || kind === 'compound' ? AIR_DENSITY_KG_PER_M3 : 0,
    heightM,
    gravityMPerS2: STANDARD_GRAVITY_M_PER_S2,
  });
  // Six significant digits: more than a height in millimetres can say.
  return Number(convertPressure(correctionPa, 'Pa', configuration.inputUnit).toPrecision(6));
}

function whyTooFast({ percentOfSpanPerMinute, of, limit, direction }: Leak): string {
  const rate = `${formatPlain(Number(Math.abs(percentOfSpanPerMinute).toPrecision(2)))} % of ${of} a minute, more than ${formatPlain(limit)} %`;
  return percentOfSpanPerMinute > 0
    ? `the line ${direction === 'rose' ? 'rises by' : 'loses'} ${rate}; find the leak, or say why it does not matter`
    : `the pressure ${direction === 'rose' ? 'rises' : 'falls'}, away from that of the air, by ${rate}; wait until it rests, or say why it does not matter`;
}

/** Refuses references that do not measure what is asked, and, without a reason, those that do not fit. */
async function chosen(
  tx: Queryable,
  actor: Actor,
  instrument: Instrument,
  entry: NewConnection,
  head: number,
): Promise<Pick<Connection, 'pressureReference' | 'secondReference' | 'meter'>> {
  const use: Use = { today: actor.today, head };
  const find = async (id: number, side: Side): Promise<Reference> => {
    const reference = await findReference(tx, id);
    if (reference.heldSince !== null)
      throw new StoreError({
        code: 'reference-unfit',
        tag: reference.tag,
        why: whyHeld(reference.heldSince),
      });
    if (!measuresSide(reference, instrument, side))
      throw new StoreError({
        code: 'reference-unfit',
        tag: reference.tag,
        why:
          reference.quantity === quantityWanted(instrument, side)
            ? 'it reads absolute pressure, and the output is a gauge pressure'
            : `it measures ${reference.quantity}`,
      });
    return reference;
  };
  const requireFit = (reference: Reference, side: Side, partner: Reference | null): void => {
    const { unfit } = fitOf(reference, instrument, side, use, partner);
    if (unfit !== null && entry.referenceReason.trim() === '')
      throw new StoreError({ code: 'reference-reason-needed', tag: reference.tag, why: unfit });
  };
  const isMeterWanted = quantityWanted(instrument, 'output') !== null;
  if (isMeterWanted && entry.meter === null)
    throw new StoreError({ code: 'reason-needed', why: 'which meter reads the output' });
  const pressureReference = await find(entry.pressureReference, 'input');
  const secondReference = entry.secondReference === null ? null : await find(entry.secondReference, 'input');
  const meter = isMeterWanted && entry.meter !== null ? await find(entry.meter, 'output') : null;
  requireFit(pressureReference, 'input', secondReference);
  if (secondReference !== null) {
    requireFit(secondReference, 'input', pressureReference);
    if (entry.referenceReason.trim() === '')
      requireReach(instrument, use, pressureReference, secondReference);
  }
  if (meter !== null) requireFit(meter, 'output', null);
  return { pressureReference, secondReference, meter };
}

/** Refuses two standards that leave a point to neither. */
function requireReach(instrument: Instrument, use: Use, first: Reference, second: Reference): void {
  const { inputUnit } = instrument.configuration;
  for (const applied of appliedPoints(instrument))
    if (betterStandard(first, second, instrument, applied, use) === null)
      throw new StoreError({
        code: 'reference-reason-needed',
        tag: `${first.tag} with ${second.tag}`,
        why: `neither reaches ${formatPlain(applied)} ${PRESSURE_UNITS[inputUnit].label}`,
      });
}

/**
 * Which run a connection is made for: another one as found while nothing was touched, the one as left once it was.
 */
async function nextRun(
  tx: Queryable,
  jobId: number,
  { configuration }: Instrument,
): Promise<{ readonly kind: RunKind; readonly pass: number }> {
  const asFound = (await runsOfJob(tx, jobId)).filter(({ kind }) => kind === 'as-found').at(-1);
  const adjusted = await tx.query('select from adjustment where job_id = $1 limit 1', [jobId]);
  const isTouched =
    adjusted.length > 0 ||
    (asFound?.thrownAway === null && asFound.madeWith.configuration.version !== configuration.version);
  return isTouched
    ? { kind: 'as-left', pass: await currentPass(tx, jobId) }
    : { kind: 'as-found', pass: (asFound?.pass ?? 0) + 1 };
}

/**
 * Keeps the connection, begins a run under it and moves the job to it.
 * @throws StoreError `reference-unfit`, `reference-reason-needed`, `reason-needed`, `unanswered`, `wrong-stage`, `no-such`,
 *   `unknown-person`, `not-allowed`; CoreError for a leak check that is no number
 */
export async function connectJob(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  entry: NewConnection,
): Promise<void> {
  await requireWorker(tx, actor);
  await lockJobAt(tx, jobId, 'connect');
  const instrument = await instrumentOfJob(tx, jobId);
  if (entry.secondScale != null && entry.secondScale.low === entry.secondScale.high)
    throw new StoreError({
      code: 'reason-needed',
      why: 'what the second indication shows at 100 %, which is not what it shows at 0 %',
    });
  const note = entry.note.trim();
  const left = CONNECT_CHECKS.filter((check) => !entry.checksDone.includes(check));
  if (left.length > 0 && note === '')
    throw new StoreError({ code: 'reason-needed', why: `not ticked is "${left.join('", "')}"` });
  const questions = questionsAt('connect', instrument);
  const open = unanswered(questions, entry.given);
  if (open.length > 0 && note === '')
    throw new StoreError({ code: 'unanswered', questions: open.map(({ text }) => text) });
  const basis = { ...instrument, tolerance: toleranceOf(instrument) };
  const leak = entry.leak === null ? null : leakOf(basis, entry.leak, entry.ambient.barometerHpa);
  if (leak !== null && isTooFast(leak) && note === '')
    throw new StoreError({ code: 'reason-needed', why: whyTooFast(leak) });
  const head = headOf(instrument, entry);
  const references = await chosen(tx, actor, instrument, entry, head);
  const { temperatureC, humidityPercent, barometerHpa } = entry.ambient;
  await tx.query(
    `insert into connection (job_id, pressure_module_id, second_module_id, meter_module_id, ambient_c, humidity_percent,
       barometer_hpa, checks_done, reference_reason, leak, height_m, liquid_density, head, reads_digital,
       second_indication, made_by, made_at, input_unit, second_scale, place)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, $11, $12, $13, $14, $15, $16, $17, $18, $19, $20)`,
    [
      jobId,
      references.pressureReference.id,
      references.secondReference?.id ?? null,
      references.meter?.id ?? null,
      temperatureC,
      humidityPercent,
      barometerHpa,
      entry.checksDone,
      entry.referenceReason.trim(),
      leak === null ? null : JSON.stringify(leak),
      entry.heightM,
      entry.liquidDensityKgPerM3,
      head,
      entry.readsDigital,
      entry.secondIndication,
      actor.personId,
      actor.at,
      instrument.configuration.inputUnit,
      entry.secondScale == null ? null : JSON.stringify(entry.secondScale),
      entry.place,
    ],
  );
  const answers = answersOf(questions, entry.given);
  const { kind, pass } = await nextRun(tx, jobId, instrument);
  await moveJob(tx, actor, jobId, { from: 'connect', to: kind, note, answers });
  const connection = await connectionOfJob(tx, jobId);
  if (connection === null) throw new Error('the connection just inserted is not there');
  await startRun(tx, actor, jobId, { kind, pass }, instrument, connection);
  const { given: _given, ...detail } = entry;
  await appendToTrail(tx, actor, {
    act: 'connect',
    subject: { kind: 'job', id: jobId },
    detail: {
      ...detail,
      leak,
      head,
      answers,
      pressureReference: references.pressureReference.tag,
      secondReference: references.secondReference?.tag ?? null,
      meter: references.meter?.tag ?? null,
      note,
    },
  });
}
