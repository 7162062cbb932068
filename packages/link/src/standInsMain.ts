/**
 * `npm run stand-ins -- --seed 7 --fault tilt`: a simulated controller, indicator, loop meter, voltmeter and receivers behind
 * text over TCP, and a transmitter behind HART-IP, on loopback, for any program that speaks to instruments, until they are stopped.
 */
import { parseArgs } from 'node:util';
import { faultOf, orFail, seedOf, speedOf } from './given';
import { Simulation } from './standIn';
import { startStandIns } from './standIns';

const { values: given } = parseArgs({
  options: {
    seed: { type: 'string', default: '7' },
    fault: { type: 'string', multiple: true, default: [] },
    speed: { type: 'string', default: '1' },
  },
});

const seed = orFail(() => seedOf(given.seed));
const speed = orFail(() => speedOf(given.speed));
const planted = orFail(() => given.fault.map(faultOf));
const began = Date.now();
const simulation = orFail(() => new Simulation(seed, () => ((Date.now() - began) / 1000) * speed, planted));
const { close, ...servers } = await startStandIns(seed, simulation.now);
for (const [name, { port }] of Object.entries(servers)) console.log(`${name}: 127.0.0.1:${port}`);
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => void close().then(() => process.exit(0)));
