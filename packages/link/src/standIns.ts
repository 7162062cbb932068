/** The instruments of a simulated world behind ports on loopback. */
import { HartDevice } from './hart/device';
import { serveHart, type HartServer } from './hart/server';
import type { SimulatedNow } from './simulated';
import { controller, indicator, loopMeter, panel, receiver, voltmeter } from './text/instruments';
import { serveText, type TextServer } from './text/server';

export interface StandIns {
  readonly controller: TextServer;
  readonly indicator: TextServer;
  readonly meter: TextServer;
  readonly voltmeter: TextServer;
  readonly receiver: TextServer;
  readonly panel: TextServer;
  /** HART-IP by TCP and by UDP. */
  readonly transmitter: HartServer;
  close(this: void): Promise<void>;
}

export async function startStandIns(seed: number, now: () => SimulatedNow): Promise<StandIns> {
  const identity = (model: string) => `Barys,${model},SIM-${seed},1`;
  const all = await Promise.all([
    serveText(identity('simulated pressure controller'), controller(now)),
    serveText(identity('simulated reference indicator'), indicator(now)),
    serveText(identity('simulated loop meter'), loopMeter(now)),
    serveText(identity('simulated voltmeter'), voltmeter(now)),
    serveText(identity('simulated receiver'), receiver(now)),
    serveText(identity('simulated panel indicator'), panel(now)),
    serveHart(new HartDevice(seed, now)),
  ]);
  const [one, two, three, four, five, six, transmitter] = all;
  return {
    controller: one,
    indicator: two,
    meter: three,
    voltmeter: four,
    receiver: five,
    panel: six,
    transmitter,
    close: async () => {
      await Promise.all(all.map((server) => server.close()));
    },
  };
}
