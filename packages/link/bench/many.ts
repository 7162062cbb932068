/**
 * Many links at once, each with a stand-in at a TCP port of its own whose value is the time at which it was asked: so whoever
 * sees a value knows how old it is. For the bench: `many.ts <url>`, tokens one a line on the standard input.
 */
import type { BeatAnswer, Driver } from '@barys/core/port';
import { readFileSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import { Bench } from '../src/bench';
import { Link } from '../src/link';
import { textPort } from '../src/text/port';
import { serveText } from '../src/text/server';

const TURN_MS = 250;
const [url = ''] = process.argv.slice(2);
const tokens = readFileSync(0, 'utf8').split('\n').filter(Boolean);

const CLOCK: Driver = {
  name: 'Clock',
  identify: { ask: '*IDN?', answer: '(?<maker>[^,]*),(?<model>[^,]*),(?<serial>[^,]*),(?<firmware>[^,]*)' },
  reads: { pressure: { ask: 'MEAS:PRES?', answer: '(?<value>.*)', unit: 'kPa' } },
  units: [],
  begin: [],
  set: null,
  hold: null,
  vent: null,
  errors: null,
  answerMs: 1000,
  pauseMs: 0,
};

async function run(token: string): Promise<void> {
  const server = await serveText('Barys,simulated clock,1,1', (command) =>
    command === 'MEAS:PRES?' ? String(Date.now()) : undefined,
  );
  const device = {
    name: 'Clock',
    port: textPort(CLOCK, { kind: 'tcp', host: '127.0.0.1', port: server.port }),
  };
  const link = new Link(
    new Bench({ devices: [device] }),
    {
      beat: async (beat) => {
        const answer = await fetch(`${url}/api/v1/link/beat`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', authorization: `Bearer ${token}` },
          body: JSON.stringify(beat),
        });
        if (!answer.ok) throw new Error(`${answer.status}: ${await answer.text()}`);
        return (await answer.json()) as BeatAnswer;
      },
    },
    () => Date.now() / 1000,
  );
  // Not all at the same moment.
  await sleep(Math.random() * TURN_MS);
  for (;;) {
    const begunAt = Date.now();
    await link.turn().catch((error: unknown) => console.error(String(error)));
    await sleep(Math.max(20, TURN_MS - (Date.now() - begunAt)));
  }
}

await Promise.all(tokens.map(run));
