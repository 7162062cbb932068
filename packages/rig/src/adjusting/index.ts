/**
 * Somebody who turns the screws of an analog transmitter until both ends stand: by plain alternation, or as advised. Both
 * read the same noise, feel the same backlash and stop at the same reading; neither sees the transmitter's parts.
 */
import { adviseScrews, type Ends, type Screw, type ScrewMove } from '@barys/core/adjust';
import { analogAtRest, outputOf, stepAnalog, turn, type Analog, type AnalogState } from '../analog';
import { makeChance, type Chance } from '../chance';

/** An analog transmitter with screws, backlash, bend, friction and noise of its own; sizes are inventions. */
export function drawAnalog(chance: Chance): Analog {
  return {
    range: { lrv: 0, urv: 100, outputLow: 4, outputHigh: 20 },
    pivot: chance.uniform(0, 0.4),
    zeroPerTurn: chance.uniform(0.02, 0.06),
    spanPerTurn: chance.uniform(0.03, 0.1),
    backlashTurns: chance.uniform(0, 0.05),
    bend: chance.uniform(0, 0.0015),
    loop: chance.uniform(0, 0.0005),
    friction: chance.uniform(0, 0.0002),
    dampingS: 0.2,
    noise: { sigma: 0.00002, tauS: 0.5 },
    zeroPer10K: 0,
    spanPer10K: 0,
    positionHead: 0,
    perVolt: 0,
    saturation: [2, 24],
  };
}

/** How far screws are off when it comes to the bench, in turns: some per cent of span. */
const screwsOff = (chance: Chance): { readonly zero: number; readonly span: number } => ({
  zero: chance.uniform(-1, 1),
  span: chance.uniform(-0.6, 0.6),
});

/** Both ends stand when they read within this of their targets: 0.025 % of span, a last look at a meter of 1 µA. mA. */
export const STANDS_WITHIN = 0.004;
/** Standard deviation of a reading as the technician knows it, mA. */
const READING_NOISE = 0.0005;
const TARGETS: Ends = [4, 20];
const MOST_SETTINGS = 40;

class Hands {
  private state: AnalogState;
  constructor(
    private readonly analog: Analog,
    private readonly chance: Chance,
  ) {
    const off = screwsOff(chance);
    this.state = turn(analog, analogAtRest(), off);
  }

  /** Goes to an end, from below at the high one and from above at the low one, waits and reads. */
  read(at: Screw): number {
    const applied = at === 'zero' ? this.analog.range.lrv : this.analog.range.urv;
    this.wait(applied);
    return outputOf(this.analog, this.state);
  }

  private wait(applied: number): void {
    this.state = stepAnalog(this.analog, this.state, { applied, stepS: 10, normal: this.chance.normal() });
  }

  /** Turns a screw at its end until the reading is there, as near as hands come. */
  set(screw: Screw, to: number): ScrewMove {
    const { zeroPerTurn, spanPerTurn, pivot, backlashTurns } = this.analog;
    const before = this.read(screw);
    const perTurn = 16 * (screw === 'zero' ? zeroPerTurn : spanPerTurn * (1 + pivot));
    let after = before;
    let way = 0;
    for (let tries = 0; tries < 12 && Math.abs(after - to) > STANDS_WITHIN / 4; tries += 1) {
      const turns = (to - after) / perTurn;
      // Whoever turns back feels the play and turns through it.
      const play = way !== 0 && Math.sign(turns) !== way ? backlashTurns * Math.sign(turns) : 0;
      way = Math.sign(turns);
      this.state = turn(this.analog, this.state, { [screw]: turns + play });
      after = this.read(screw);
    }
    return { screw, before, after };
  }
}

const stands = (reading: number, screw: Screw): boolean =>
  Math.abs(reading - TARGETS[screw === 'zero' ? 0 : 1]) <= STANDS_WITHIN;

/** Settings until both ends stand, zero first and each to its own target. */
function alternate(hands: Hands): number {
  let settings = 0;
  if (stands(hands.read('zero'), 'zero') && stands(hands.read('span'), 'span')) return 0;
  while (settings < MOST_SETTINGS) {
    hands.set('zero', TARGETS[0]);
    hands.set('span', TARGETS[1]);
    settings += 2;
    if (stands(hands.read('zero'), 'zero')) return settings;
  }
  return settings;
}

/** Settings until both ends stand, each where the advice says. */
function follow(hands: Hands): number {
  const found: Ends = [hands.read('zero'), hands.read('span')];
  const situation = { targets: TARGETS, found, noise: READING_NOISE, tolerance: STANDS_WITHIN };
  const moves: ScrewMove[] = [];
  while (moves.length < MOST_SETTINGS) {
    const planned = adviseScrews({ ...situation, moves });
    // What it believes to be done is looked at before it is called so, at the end that was not turned last.
    const at: Screw = planned.next?.screw ?? (moves.at(-1)?.screw === 'zero' ? 'span' : 'zero');
    const { next } = adviseScrews({ ...situation, moves, now: { at, reading: hands.read(at) } });
    if (next === null) return moves.length;
    moves.push(hands.set(next.screw, next.setTo));
  }
  return moves.length;
}

/** Settings of both ways on the same transmitter, found in the same state; two are a pass. */
export function settingsOf(seed: number): { readonly plain: number; readonly advised: number } {
  const analog = drawAnalog(makeChance(seed));
  const hands = () => new Hands(analog, makeChance(seed + 1_000_000));
  return { plain: alternate(hands()), advised: follow(hands()) };
}
