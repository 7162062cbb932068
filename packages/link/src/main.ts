/**
 * `npm run link -- --url http://127.0.0.1:3000 --token ...`: a link to the instruments whose addresses an administrator
 * entered. It runs until it is stopped, and joins Barys again by itself. The token can come as BARYS_LINK_TOKEN, which no list
 * of processes shows. `--simulated` brings a simulated bench beside them.
 */
import type { BeatAnswer } from '@barys/core/port';
import { setTimeout as sleep } from 'node:timers/promises';
import { parseArgs } from 'node:util';
import { faultOf, orFail, seedOf, speedOf } from './given';
import { Bench } from './bench';
import { Link } from './link';
import { standInBench } from './standIn';

const TURN_MS = 250;
const ANSWER_MS = 5000;

const { values: given } = parseArgs({
  options: {
    url: { type: 'string', default: 'http://127.0.0.1:3000' },
    token: { type: 'string' },
    simulated: { type: 'boolean', default: false },
    seed: { type: 'string', default: '7' },
    fault: { type: 'string', multiple: true, default: [] },
    /** How much faster than the clock the simulated bench goes. */
    speed: { type: 'string', default: '1' },
  },
});

const token = given.token ?? process.env['BARYS_LINK_TOKEN'] ?? '';
if (token === '') {
  console.error('A link needs a token: an administrator makes one at Account, “stand at a bench as a link”.');
  process.exit(1);
}
const seed = orFail(() => seedOf(given.seed));
const speed = orFail(() => speedOf(given.speed));
const planted = orFail(() => given.fault.map(faultOf));

const began = Date.now();
const clock = (): number => ((Date.now() - began) / 1000) * speed;
const simulated = given.simulated
  ? await standInBench(seed, clock, planted, (ms) => sleep(ms / speed)).catch((error: unknown) =>
      // A fault that nothing at this bench can have.
      orFail(() => {
        throw error;
      }),
    )
  : null;

const link = new Link(
  new Bench(simulated ?? undefined),
  {
    beat: async (beat) => {
      const answer = await fetch(`${given.url}/api/v1/link/beat`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', authorization: `Bearer ${token}` },
        body: JSON.stringify(beat),
        signal: AbortSignal.timeout(ANSWER_MS),
      }).catch((error: unknown) => {
        throw new Error(`Barys does not answer at ${given.url}.`, { cause: error });
      });
      if (!answer.ok) throw new Error(`Barys says ${answer.status}: ${(await answer.text()).slice(0, 300)}`);
      return (await answer.json()) as BeatAnswer;
    },
  },
  clock,
);

const ending = new AbortController();
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    ending.abort();
  });

let trouble = '';
while (!ending.signal.aborted) {
  const begunAt = Date.now();
  try {
    await link.turn();
    if (trouble !== '') console.log('Joined again.');
    trouble = '';
  } catch (error) {
    const words = error instanceof Error ? error.message : String(error);
    // What stays wrong is said once.
    if (words !== trouble) console.error(words);
    trouble = words;
    await sleep(1000);
  }
  await sleep(Math.max(20, TURN_MS - (Date.now() - begunAt)));
}
await link.end().catch((error: unknown) => {
  console.error(error instanceof Error ? error.message : String(error));
  process.exitCode = 1;
});
await simulated?.close();
process.exit();
