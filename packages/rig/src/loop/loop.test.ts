import { describe, expect, it } from 'vitest';
import { readLoop, type Loop, type Meter } from './index';

const METER: Meter = { place: 'in series', ohm: 10, gain: 0, offset: 0, jack: 'current' };
const LOOP: Loop = {
  supplyV: 24,
  wireOhm: 20,
  barrierOhm: 0,
  seriesOhm: 250,
  liftOffV: 12,
  corrodedOhm: 0,
  meter: METER,
};

describe('a two-wire loop', () => {
  it('is Ohm’s law around', () => {
    const { milliamp, terminalV, seriesV, shown } = readLoop(LOOP, 20);
    expect([milliamp, seriesV, shown]).toEqual([20, 5, 20]);
    // 24 V less 20 mA over 20 + 250 + 10 ohms.
    expect(terminalV).toBeCloseTo(18.4, 12);
    // What the supply gives is what the parts take (energy balance), mW.
    const taken = 20 * terminalV + (20 * 20 * (20 + 250 + 10)) / 1000;
    expect(taken).toBeCloseTo(20 * 24, 9);
  });

  it('is right at 4 mA and wrong at 20 where the resistance is too high', () => {
    const long = { ...LOOP, wireOhm: 700 };
    expect(readLoop(long, 4).milliamp).toBe(4);
    // 12 V over 960 ohms are all that is left.
    expect(readLoop(long, 20).milliamp).toBeCloseTo(12.5, 12);
    expect(readLoop(long, 20).terminalV).toBeCloseTo(12, 12);
    expect(readLoop({ ...LOOP, corrodedOhm: 900 }, 20, 1).milliamp).toBeLessThan(11);
    expect(readLoop({ ...LOOP, corrodedOhm: 900 }, 20, 0).milliamp).toBe(20);
  });

  it('shows a little less across the diode as the meter’s resistance grows, and the loop feels nothing', () => {
    const across = (ohm: number) =>
      readLoop({ ...LOOP, meter: { ...METER, place: 'across the test terminals', ohm } }, 20);
    expect(across(1).shown).toBeCloseTo(20, 4);
    expect(20 - (across(10).shown ?? 0)).toBeLessThan(0.001);
    expect(20 - (across(30).shown ?? 0)).toBeGreaterThan(0.5);
    expect(across(30).milliamp).toBe(20);
    // What the meter and the diode carry is what flows.
    const through = across(30).shown ?? NaN;
    const diode = 0.01 * 10 ** (((through / 1000) * 30 - 0.45) / 0.06);
    expect(through + diode).toBeCloseTo(20, 9);
  });

  it('shows nothing, or stops, with the wrong jack', () => {
    const jack = (place: Meter['place'], of: Meter['jack']) =>
      readLoop({ ...LOOP, meter: { ...METER, place, jack: of } }, 12);
    expect(jack('in series', 'voltage')).toMatchObject({ milliamp: 0, shown: null });
    expect(jack('in series', 'blown')).toMatchObject({ milliamp: 0, shown: null });
    expect(jack('across the test terminals', 'blown')).toMatchObject({ milliamp: 12, shown: null });
    expect(readLoop({ ...LOOP, meter: null }, 12)).toMatchObject({ milliamp: 12, shown: null });
    expect(readLoop({ ...LOOP, meter: { ...METER, gain: 0.001, offset: 0.002 } }, 10).shown).toBeCloseTo(
      10.012,
      12,
    );
  });
});
