/** Instruments of a simulated world that are spoken to in text: a pressure controller, a reference indicator, a loop meter. */
import { convertPressure, type PressureUnit } from '@barys/core/units';
import type { SimulatedNow } from '../simulated';
import { numberOf } from './driver';
import type { Instrument } from './server';

const UNITS: Readonly<Record<string, PressureUnit>> = {
  KPA: 'kPa',
  PA: 'Pa',
  BAR: 'bar',
  MBAR: 'mbar',
  PSI: 'psi',
};

function unitOf(text: string): PressureUnit {
  const unit = UNITS[text.toUpperCase()];
  if (unit === undefined) throw new Error('Illegal parameter value');
  return unit;
}
const nameOf = (unit: PressureUnit): string =>
  Object.entries(UNITS).find(([, one]) => one === unit)?.[0] ?? 'KPA';

/** @param now brings the world to this moment */
export function controller(now: () => SimulatedNow): Instrument {
  let unit: PressureUnit = 'kPa';
  let rate: number | null = null;
  let wanted = 0;
  const inWorld = (value: number): number => convertPressure(value, unit, now().unit);
  return (command, argument) => {
    const { world } = now();
    switch (command) {
      case 'UNIT:PRES':
        unit = unitOf(argument);
        return null;
      case 'UNIT:PRES?':
        return nameOf(unit);
      case 'MEAS:PRES?':
        return pressure(now(), unit);
      case 'SOUR:PRES:SLEW':
        rate = argument.toUpperCase() === 'MAX' ? null : numberOf(argument);
        return null;
      case 'SOUR:PRES':
        wanted = numberOf(argument);
        return null;
      case 'OUTP:MODE':
        if (argument.toUpperCase() === 'CONT')
          world.source.set(inWorld(wanted), rate === null ? null : inWorld(rate));
        else if (argument.toUpperCase() === 'HOLD') world.source.hold();
        else if (argument.toUpperCase() === 'VENT') world.source.vent();
        else throw new Error('Illegal parameter value');
        return null;
    }
    return undefined;
  };
}

function pressure({ world, unit: own }: SimulatedNow, unit: PressureUnit): string {
  const { reference, isStable } = world.shown;
  return `${convertPressure(reference, own, unit).toExponential(6)},${nameOf(unit)},${isStable ? 1 : 0}`;
}

export const indicator =
  (now: () => SimulatedNow): Instrument =>
  (command) =>
    command === 'MEAS:PRES?' ? pressure(now(), 'kPa') : undefined;

/** Across the resistor of the loop, in volts. */
export const voltmeter =
  (now: () => SimulatedNow): Instrument =>
  (command) => {
    if (command !== 'MEAS:VOLT:DC?') return undefined;
    const { seriesV } = now().world.shown;
    return seriesV === null ? '9.91E+37' : seriesV.toExponential(6);
  };

/** A receiver behind the resistor, per cent of its scale. */
export const receiver =
  (now: () => SimulatedNow): Instrument =>
  (command) => {
    if (command !== 'MEAS:DISP?') return undefined;
    const [shown] = now().world.shown.receivers;
    return shown === undefined ? '9.91E+37' : shown.toExponential(6);
  };

/** An indicator in the loop itself, per cent of its scale: what stands across a resistor does not concern it. */
export const panel =
  (now: () => SimulatedNow): Instrument =>
  (command) => {
    if (command !== 'MEAS:DISP?') return undefined;
    const { meter } = now().world.shown;
    return meter === null ? '9.91E+37' : (((meter - 4) / 16) * 100).toExponential(6);
  };

/** In amperes, as the standard has it; what it cannot read is its NaN. */
export const loopMeter =
  (now: () => SimulatedNow): Instrument =>
  (command) => {
    if (command !== 'MEAS:CURR:DC?') return undefined;
    const { meter } = now().world.shown;
    return meter === null ? '9.91E+37' : (meter / 1000).toExponential(6);
  };
