/**
 * A two-wire loop: V_terminal = V_supply - I (R_wire + R_barrier + R_series + R_meter). Below the lift-off of the transmitter
 * the current is what the supply allows. A meter stands in series, or across the test terminals, where the diode between
 * them takes over once the meter's resistance drops too much voltage. A corroded terminal is a resistance that comes and
 * goes with the current's noise. Ohm's law; common practice, from memory.
 */

export interface Loop {
  readonly supplyV: number;
  readonly wireOhm: number;
  readonly barrierOhm: number;
  /** Of the receiver, across which a voltage is read. */
  readonly seriesOhm: number;
  /** Least voltage at the terminals of the transmitter. */
  readonly liftOffV: number;
  /** Of a corroded terminal, at its worst; 0 where it is sound. */
  readonly corrodedOhm: number;
  readonly meter: Meter | null;
}

export interface Meter {
  readonly place: 'in series' | 'across the test terminals';
  readonly ohm: number;
  /** Its own error: gain less one, and offset, mA. */
  readonly gain: number;
  readonly offset: number;
  readonly jack: 'current' | 'voltage' | 'blown';
}

export interface LoopReading {
  /** What flows, mA. */
  readonly milliamp: number;
  readonly terminalV: number;
  /** Across the series resistor, V. */
  readonly seriesV: number;
  /** What the meter shows, mA; null without one, and where it shows nothing. */
  readonly shown: number | null;
}

/** Volts at which the test diode begins to carry, and what a decade of current costs. */
const DIODE_KNEE_V = 0.45;
const DIODE_DECADE_V = 0.06;

/** mA that the diode carries beside a meter of this drop. */
const throughDiode = (volt: number): number => 0.01 * Math.pow(10, (volt - DIODE_KNEE_V) / DIODE_DECADE_V);

/** What a meter across the test terminals carries of a current: the rest goes through the diode. Solved by bisection. */
function beside(milliamp: number, ohm: number): number {
  let [low, high] = [0, milliamp];
  for (let step = 0; step < 60; step += 1) {
    const middle = (low + high) / 2;
    if (middle + throughDiode((middle / 1000) * ohm) > milliamp) high = middle;
    else low = middle;
  }
  return (low + high) / 2;
}

/**
 * @param wanted what the transmitter would put out, mA
 * @param noise of a corroded terminal, 0 sound to 1 worst, at this moment
 */
export function readLoop(loop: Loop, wanted: number, noise = 0): LoopReading {
  const { meter } = loop;
  const inSeries = meter?.place === 'in series';
  // A meter that is blown, or reads volts, opens a loop that it stands in.
  const isOpen = inSeries && meter.jack !== 'current';
  const ohm =
    loop.wireOhm + loop.barrierOhm + loop.seriesOhm + loop.corrodedOhm * noise + (inSeries ? meter.ohm : 0);
  const most = ohm === 0 ? Infinity : ((loop.supplyV - loop.liftOffV) / ohm) * 1000;
  const milliamp = isOpen ? 0 : Math.max(0, Math.min(wanted, most));
  const through =
    meter === null || meter.jack !== 'current' ? null : inSeries ? milliamp : beside(milliamp, meter.ohm);
  return {
    milliamp,
    terminalV: isOpen ? 0 : loop.supplyV - (milliamp / 1000) * ohm,
    seriesV: (milliamp / 1000) * loop.seriesOhm,
    shown: through === null || meter === null ? null : through * (1 + meter.gain) + meter.offset,
  };
}
