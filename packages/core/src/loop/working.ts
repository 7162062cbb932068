/** How the voltage at the terminals of a transmitter comes about. */
import { Working, type Worked } from '../working';
import { FAILURE_MILLIAMP, supplyBudget, type LoopSupply } from './supply';

const OHM = 'Ohm’s law';
const IACS = 'copper by IACS, 1.724e-8 ohm m at 20 °C and 0.00393 per kelvin, from memory';

/** The terminal voltage at a current. @throws CoreError as `supplyBudget` */
export function workSupply(given: LoopSupply, milliamp: number = FAILURE_MILLIAMP): Worked {
  supplyBudget(given, milliamp);
  const { supplyV, wire, senseOhm, barrierOhm, barrierDropV, otherOhm } = given;
  const work = new Working();
  work.step({
    what: 'Resistivity of the copper as warm as it is',
    symbol: 'rho',
    formula: '1.724e-8 * (1 + 0.00393 * (T - 20))',
    given: { T: { value: wire.temperatureC, unit: '°C' } },
    unit: 'Ω m',
    source: IACS,
  });
  work.step({
    what: 'The cable, there and back',
    symbol: 'R_w',
    formula: '2 * L * rho / (A * 1e-6)',
    given: { L: { value: wire.lengthM, unit: 'm' }, A: { value: wire.areaMm2, unit: 'mm²' } },
    unit: 'Ω',
    source: OHM,
  });
  work.step({
    what: 'All that lies in the loop',
    symbol: 'R',
    formula: 'R_w + R_s + R_b + R_o',
    given: {
      R_s: { value: senseOhm, unit: 'Ω' },
      R_b: { value: barrierOhm, unit: 'Ω' },
      R_o: { value: otherOhm, unit: 'Ω' },
    },
    unit: 'Ω',
    source: OHM,
  });
  const value = work.step({
    what: 'What is left at the terminals',
    symbol: 'V',
    formula: 'V_s - V_b - I / 1000 * R',
    given: {
      V_s: { value: supplyV, unit: 'V' },
      V_b: { value: barrierDropV, unit: 'V' },
      I: { value: milliamp, unit: 'mA' },
    },
    unit: 'V',
    source: OHM,
  });
  return { value, working: work.steps };
}
