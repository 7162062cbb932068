/** The instruments of a simulated world through the same door as real ones. */
import type { Channel, Identity, Port, PortState, PortValue } from '@barys/core/port';
import { convertPressure, isPressureUnit, type PressureUnit } from '@barys/core/units';
import { CoreError } from '@barys/core/errors';
import type { Shown, SmartWorld } from '../world';

const identityOf = (model: string, seed: number): Identity => ({
  maker: 'simulated',
  model,
  serial: `SIM-${seed}`,
  firmware: '1',
});

const DIGITS = 7;

/** A value as an instrument writes it, with the digits that it has. */
function written(value: number, unit: string, at: number, isStable: boolean | null): PortValue {
  const raw = value.toExponential(DIGITS - 1);
  return { value: Number(raw), unit, at, isStable, raw: `${raw} ${unit}` };
}

export interface RigPorts {
  readonly controller: Port;
  readonly meter: Port;
  readonly transmitter: Port;
  /** Across the resistor of the loop, and the receiver behind it. */
  readonly voltmeter: Port;
  readonly receiver: Port;
}

/**
 * @param unit of the world
 * @param clock ms; the world itself has none
 */
export function portsOf(world: SmartWorld, unit: PressureUnit, seed: number, clock: () => number): RigPorts {
  const reader = (
    model: string,
    channels: Partial<Readonly<Record<Channel, (shown: Shown) => PortValue>>>,
  ): Port => ({
    channels: Object.keys(channels) as Channel[],
    identify: () => Promise.resolve(identityOf(model, seed)),
    read(channel) {
      const of = channels[channel];
      if (of === undefined) return Promise.reject(new Error(`${model} has no ${channel}.`));
      return Promise.resolve(of(world.shown));
    },
    state: () => Promise.resolve('measuring'),
    close: () => Promise.resolve(),
  });
  const milliamp = ({ meter }: Shown): PortValue => {
    if (meter === null) throw new Error('The meter shows nothing.');
    return written(meter, 'mA', clock(), null);
  };
  let state: PortState = 'vented';
  return {
    controller: {
      ...reader('pressure controller', {
        pressure: ({ reference, isStable }) => written(reference, unit, clock(), isStable),
      }),
      set(value, of, ratePerS) {
        if (!isPressureUnit(of)) throw new CoreError({ code: 'unknown-unit', text: of });
        const own = (one: number) => convertPressure(one, of, unit);
        world.source.set(own(value), ratePerS === null ? null : own(ratePerS));
        state = 'controlling';
        return Promise.resolve();
      },
      hold() {
        world.source.hold();
        state = 'holding';
        return Promise.resolve();
      },
      vent() {
        world.source.vent();
        state = 'vented';
        return Promise.resolve();
      },
      state: () => Promise.resolve(state),
    },
    meter: reader('loop meter', { current: milliamp }),
    voltmeter: reader('voltmeter', {
      voltage: ({ seriesV }) => written(seriesV ?? NaN, 'V', clock(), null),
    }),
    receiver: reader('receiver', {
      display: ({ receivers: [shown] }) => written(shown ?? NaN, '%', clock(), null),
    }),
    transmitter: {
      ...reader('smart transmitter', {
        'digital value': ({ digital }) => written(digital ?? NaN, unit, clock(), null),
        display: ({ own }) => written(own ?? NaN, unit, clock(), null),
      }),
      state: () => Promise.resolve(world.tested.state.isFailed ? 'alarm' : 'measuring'),
    },
  };
}
