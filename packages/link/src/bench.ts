/** What stands at the bench of a link: what an administrator entered, and beside it what is simulated. */
import type { End, Port, TaskConfiguration, Wire } from '@barys/core/port';
import { hartPort } from './hart/port';
import { textPort } from './text/port';

export interface Device {
  readonly name: string;
  readonly port: Port;
}

/** Instruments that are there without having been entered: simulated ones. */
export interface Simulated {
  readonly devices: readonly Device[];
  /** A simulated instrument takes on what is set in that of the job; a real one is as it is. */
  readonly takeOn?: (configuration: TaskConfiguration) => void;
}

const portOf = (wire: Wire): Port =>
  wire.speaks === 'text' ? textPort(wire.driver, wire.at) : hartPort(wire);

export class Bench {
  private entered = new Map<string, Device>();

  constructor(
    private readonly simulated: Simulated = { devices: [] },
    private readonly open: (wire: Wire) => Port = portOf,
  ) {}

  get devices(): readonly Device[] {
    return [...this.simulated.devices, ...this.entered.values()];
  }

  takeOn(configuration: TaskConfiguration): void {
    this.simulated.takeOn?.(configuration);
  }

  /** Opens what is new, closes what is there no more, and leaves the rest as it is. */
  async connect(ends: readonly End[]): Promise<void> {
    const before = this.entered;
    // One that only changed its address is another one.
    this.entered = new Map(
      ends.map((end) => {
        const key = JSON.stringify(end);
        return [key, before.get(key) ?? { name: end.device, port: this.open(end.wire) }];
      }),
    );
    await Promise.all(
      [...before].filter(([key]) => !this.entered.has(key)).map(([, { port }]) => port.close()),
    );
  }
}
