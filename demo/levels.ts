/** What the demo's levels are measured in, the densities that they come from, and the jobs at its boiler drum. */
import { drumRange, hotCheck, levelRange, type ArrangementName, type DrumTaps } from '@barys/core/level';
import type { Queryable } from '@barys/store/db';
import {
  openJob,
  passAsked,
  questionsAt,
  reviewJob,
  signJob,
  tickLine,
  loadJob,
  openRangeChange,
  circumstancesOf,
} from '@barys/store/jobs';
import type { Actor } from '@barys/store/people';
import { findInstrument, keepBias, keepLiquid, keepVessel } from '@barys/store/registers';
import data from './data/vessels.json';

const GRAVITY = 9.80665;
const ATMOSPHERE_PA = 101_325;
type Texts = Readonly<Record<string, string>>;

function rangeOfLevel(fields: Texts): { lrvPa: number; urvPa: number } {
  const number = (name: string) => Number(fields[name] ?? 0);
  const optional = (name: string) => (fields[name] === undefined ? undefined : Number(fields[name]));
  return levelRange({
    arrangement: fields['arrangement'] as ArrangementName,
    liquidKgPerM3: number('liquid'),
    aboveKgPerM3: optional('above'),
    fillKgPerM3: optional('fill'),
    tapsM: optional('taps'),
    zeroM: number('zero'),
    fullM: number('full'),
    dropM: number('drop'),
    highSide: 'lower tap',
    gravityMPerS2: GRAVITY,
  });
}

/** Millimetres and bar gauge. */
const drumOf = (fields: Texts) => {
  const number = (name: string) => Number(fields[name]);
  const taps: DrumTaps = {
    tapsM: number('taps') / 1000,
    zeroM: number('zero') / 1000,
    fullM: number('full') / 1000,
    dropM: number('drop') / 1000,
    highSide: 'lower tap',
    gravityMPerS2: GRAVITY,
  };
  const state = { pressurePa: number('pressure') * 1e5 + ATMOSPHERE_PA, legTemperatureC: number('leg') };
  return { taps, state };
};

/** Liquids first: the vessels name them. */
export async function plantVessels(tx: Queryable, actor: Actor): Promise<void> {
  const liquids = new Map<string, number>();
  for (const { name, source, points } of data.liquids)
    liquids.set(
      name,
      await keepLiquid(tx, actor, null, {
        name,
        source,
        points: points.map(([temperatureC = 0, densityKgPerM3 = 0]) => ({ temperatureC, densityKgPerM3 })),
      }),
    );
  const reason = 'from the vessel drawing';
  for (const [tag, given] of Object.entries(data.level as Readonly<Record<string, Texts>>)) {
    const named = given['liquidId'];
    const fields = named === undefined ? given : { ...given, liquidId: String(liquids.get(named) ?? named) };
    const { lrvPa, urvPa } = rangeOfLevel(fields);
    await keepVessel(tx, actor, tag, { tool: 'level', fields, lrvPa, urvPa, reason });
  }
  for (const [tag, fields] of Object.entries(data.drum as Readonly<Record<string, Texts>>)) {
    const { taps, state } = drumOf(fields);
    const { lrvPa, urvPa } = drumRange(taps, state);
    await keepVessel(tx, actor, tag, { tool: 'drum', fields, lrvPa, urvPa, reason });
  }
}

const DRUM = 'LT-5101';

async function passWith(
  tx: Queryable,
  actor: Actor,
  jobId: number,
  stage: 'brief' | 'authorise' | 'return',
): Promise<void> {
  const job = await loadJob(tx, jobId);
  const given = questionsAt(stage, job.instrument, circumstancesOf({ ...job, isLegLost: false })).map(
    ({ key, kind, options, example }): [string, string] => [
      key,
      kind === 'tick' ? 'done' : kind === 'choice' ? (options?.[0] ?? '') : (example ?? 'none'),
    ],
  );
  await passAsked(tx, actor, jobId, stage, { given: Object.fromEntries(given), skipReason: '' });
}

/** The drum was checked hot: a job without a run, with its list and the bias that was entered. */
export async function plantHotCheck(tx: Queryable, actor: Actor, reviewer: Actor): Promise<void> {
  const jobId = await openJob(tx, actor, DRUM, 'hot check');
  for (const stage of ['brief', 'authorise'] as const) await passWith(tx, actor, jobId, stage);
  for (const { id } of (await loadJob(tx, jobId)).lines)
    await tickLine(tx, actor, jobId, { lineId: id, isDone: true });
  const fields: Texts = data.drum[DRUM];
  const { taps, state } = drumOf(fields);
  const [glassPercent, shownPercent] = [50, 54];
  const at = (percent: number) => (percent / 100) * taps.fullM;
  const percentOf = (metres: number) => Number(((metres / taps.fullM) * 100).toFixed(2));
  const glass = { bottomM: 0, temperatureC: Number(fields['glassTemperature']) };
  const found = hotCheck(taps, state, state, { glass, glassM: at(glassPercent), shownM: at(shownPercent) });
  const biasPercent = Number((percentOf(found.trueM) - shownPercent).toFixed(2));
  await keepBias(tx, actor, DRUM, jobId, {
    biasPercent,
    pressurePa: state.pressurePa,
    glassPercent,
    shownPercent,
    explainedPercent: percentOf(found.explainedM),
    unexplainedPercent: percentOf(found.unexplainedM),
    reason: 'pot and leg proven full, zero proven at the equaliser',
    address: `/workshop/drum?${new URLSearchParams({ ...fields, tag: DRUM, glass: '50', shown: '54', bias: String(biasPercent) })}`,
  });
  await passWith(tx, actor, jobId, 'return');
  await signJob(tx, actor, jobId, { remark: '', password: '' });
  await reviewJob(tx, reviewer, jobId, { isAccepted: true, remark: '', password: '' });
}

/** In hand: the drum is to be set up cold, and a buffer tank waits for its new range. */
export async function plantLevelJobs(tx: Queryable, actor: Actor): Promise<void> {
  await passWith(tx, actor, await openJob(tx, actor, DRUM, 'cold set-up'), 'brief');
  const tag = 'LT-2303';
  const { configuration } = await findInstrument(tx, { tag });
  const { version: _version, madeBy: _by, madeAt: _at, ...range } = configuration;
  await openRangeChange(
    tx,
    actor,
    tag,
    { ...range, urv: 1782, reason: 'thick juice runs at 72 Bx this campaign' },
    { label: `${tag}: 0 … 1782 mbar, 4 … 20 mA`, exchange: null },
  );
}
