/**
 * A bench that stands in for a real one: a controller, an indicator, a loop meter, a voltmeter and two receivers behind text over TCP on loopback, and a
 * smart transmitter behind HART-IP, all in one simulated world. The link speaks to it as it would to real ones.
 */
import {
  CONTROLLER_DRIVER,
  INDICATOR_DRIVER,
  METER_DRIVER,
  RECEIVER_DRIVER,
  VOLTMETER_DRIVER,
  type TaskConfiguration,
} from '@barys/core/port';
import { isPressureUnit, type PressureUnit } from '@barys/core/units';
import { makeWorld, type Planted, type SmartWorld } from '@barys/rig/world';
import type { Simulated } from './bench';
import { hartPort } from './hart/port';
import { textPort } from './text/port';
import type { SimulatedNow } from './simulated';
import { startStandIns } from './standIns';

const USUAL: TaskConfiguration = {
  tag: 'SIM-1',
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

/** A run's own copy of a configuration says more than the simulation takes of it. */
const sameness = ({ tag, lrv, urv, inputUnit, dampingS, transferFunction }: TaskConfiguration): string =>
  JSON.stringify([tag, lrv, urv, inputUnit, dampingS, transferFunction]);

/** A simulated world that can be made anew for another range, and goes by a clock. */
export class Simulation {
  private world: SmartWorld;
  private configuration = USUAL;
  private unit: PressureUnit = 'kPa';
  private steppedS: number;

  /** @param clock s */
  constructor(
    private readonly seed: number,
    private readonly clock: () => number,
    private readonly planted: readonly Planted[] = [],
  ) {
    this.world = worldFor(USUAL, seed, planted);
    this.steppedS = clock();
  }

  /** The same instrument stays as it was left: what was trimmed at it stays trimmed. */
  takeOn = (configuration: TaskConfiguration): void => {
    if (sameness(configuration) === sameness(this.configuration)) return;
    this.configuration = configuration;
    this.unit = isPressureUnit(configuration.inputUnit) ? configuration.inputUnit : 'kPa';
    this.world = worldFor(configuration, this.seed, this.planted);
    this.steppedS = this.clock();
  };

  /** The world goes on to now before anybody looks at it. */
  now = (): SimulatedNow => {
    const s = this.clock();
    if (s > this.steppedS) this.world.step(s - this.steppedS);
    this.steppedS = s;
    return { world: this.world, unit: this.unit, tag: this.configuration.tag };
  };
}

/**
 * @param clock s; the world goes by it
 * @param planted faults of the transmitter and of what is around it
 * @param wait in the time of the world, ms; as long by the clock where nothing is said
 */
export async function standInBench(
  seed: number,
  clock: () => number,
  planted: readonly Planted[] = [],
  wait?: (ms: number) => Promise<unknown>,
): Promise<Simulated & { close(this: void): Promise<void> }> {
  const simulation = new Simulation(seed, clock, planted);
  const standIns = await startStandIns(seed, simulation.now);
  const at = ({ port }: { readonly port: number }) => ({ kind: 'tcp' as const, host: '127.0.0.1', port });
  return {
    takeOn: simulation.takeOn,
    close: standIns.close,
    devices: [
      { name: 'Controller', port: textPort(CONTROLLER_DRIVER, at(standIns.controller)) },
      { name: 'Indicator', port: textPort(INDICATOR_DRIVER, at(standIns.indicator)) },
      { name: 'Loop meter', port: textPort(METER_DRIVER, at(standIns.meter)) },
      { name: 'Voltmeter', port: textPort(VOLTMETER_DRIVER, at(standIns.voltmeter)) },
      { name: 'Receiver', port: textPort(RECEIVER_DRIVER, at(standIns.receiver)) },
      { name: 'Panel', port: textPort(RECEIVER_DRIVER, at(standIns.panel)) },
      {
        name: 'Transmitter',
        port: hartPort(
          { speaks: 'HART-IP', at: at(standIns.transmitter), pollingAddress: 0 },
          Date.now,
          wait,
        ),
      },
    ],
  };
}
