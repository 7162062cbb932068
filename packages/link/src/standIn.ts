/** A bench that stands in for a real one: a controller, a loop meter and a smart transmitter in one simulated world, in memory. */
import type { Port, TaskConfiguration } from '@barys/core/port';
import { isPressureUnit } from '@barys/core/units';
import { portsOf } from '@barys/rig/port';
import { makeWorld, type Planted, type SmartWorld } from '@barys/rig/world';
import type { BenchEnd } from './link';

const USUAL: TaskConfiguration = {
  lrv: 0,
  urv: 100,
  inputUnit: 'kPa',
  dampingS: 0.5,
  transferFunction: { kind: 'linear' },
};

const worldFor = (
  { lrv, urv, dampingS, transferFunction }: TaskConfiguration,
  seed: number,
  planted: readonly Planted[],
): SmartWorld =>
  makeWorld(
    {
      lrv,
      urv,
      transfer: transferFunction,
      dampingS,
      displayDampingS: dampingS,
      displayLow: lrv,
      displayHigh: urv,
      drivenBy: 'pressure',
      scaledTransfer: { kind: 'linear' },
      isProtected: false,
    },
    seed,
    { planted },
  );

/**
 * @param clock s; the world goes by it
 * @param planted faults of the transmitter and of what is around it
 */
export function standInBench(
  seed: number,
  clock: () => number,
  planted: readonly Planted[] = [],
): BenchEnd & { readonly world: () => SmartWorld } {
  let world: SmartWorld;
  let ports: ReturnType<typeof portsOf>;
  let steppedS = clock();
  const takeOn = (configuration: TaskConfiguration) => {
    const unit = isPressureUnit(configuration.inputUnit) ? configuration.inputUnit : 'kPa';
    world = worldFor(configuration, seed, planted);
    ports = portsOf(world, unit, seed, () => Date.now());
    steppedS = clock();
  };
  takeOn(USUAL);
  /** The world goes on to now before anybody looks at it. */
  const now = () => {
    const s = clock();
    if (s > steppedS) world.step(s - steppedS);
    steppedS = s;
    return ports;
  };
  const through = (of: (all: typeof ports) => Port): Port => {
    const first = of(ports);
    return {
      channels: first.channels,
      identify: () => of(now()).identify(),
      read: (channel) => of(now()).read(channel),
      state: () => of(now()).state(),
      close: () => of(ports).close(),
      ...(first.set && {
        set: (value, unit, rate) => of(now()).set?.(value, unit, rate) ?? Promise.resolve(),
      }),
      ...(first.hold && { hold: () => of(now()).hold?.() ?? Promise.resolve() }),
      ...(first.vent && { vent: () => of(now()).vent?.() ?? Promise.resolve() }),
    };
  };
  return {
    world: () => world,
    takeOn,
    devices: [
      { name: 'Controller', model: 'simulated pressure controller', port: through((all) => all.controller) },
      { name: 'Loop meter', model: 'simulated loop meter', port: through((all) => all.meter) },
      { name: 'Transmitter', model: 'simulated smart transmitter', port: through((all) => all.transmitter) },
    ],
  };
}
