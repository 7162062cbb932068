/** What the fields of Loop supply come to. */
import {
  badConnectionOhm,
  receiverVoltage,
  supplyBudget,
  workSupply,
  type LoopSupply,
  type SupplyBudget,
} from '@barys/core/loop';
import { signalRegion, type SignalRegion } from '@barys/core/signal';
import { formatFixed, formatSignificant } from '@barys/core/text';
import { convert, unitLabel } from '@barys/core/units';
import type { Step } from '@barys/core/working';
import Papa from 'papaparse';
import { lengthUnitOf, supplyOf, type SupplyFields } from './fields';
import { numberAt } from '../typed';

/** Where the volts of the supply stay at a current. */
export interface SupplyRow {
  readonly milliamp: number;
  readonly region: SignalRegion;
  readonly cable: number;
  readonly resistor: number;
  readonly barrier: number;
  readonly other: number;
  readonly terminal: number;
  readonly isEnough: boolean;
}

export interface SupplyResult {
  readonly given: LoopSupply;
  readonly failure: number;
  readonly budget: SupplyBudget;
  readonly rows: readonly SupplyRow[];
  readonly working: () => readonly Step[];
}

/** Failure downwards by NE 43, the ends of the signal and its middle; the failure upwards is the fields'. */
const CURRENTS = [3.6, 4, 12, 20] as const;
const ROUNDING_V = 1e-9;

/** @throws CoreError at the field that is wrong */
export function computeSupply(fields: SupplyFields): SupplyResult {
  const given = supplyOf(fields);
  const failure = numberAt(fields, 'failure', 'The failure current');
  const budget = supplyBudget(given, failure);
  const currents = [...new Set([...CURRENTS, failure])].sort((a, b) => a - b);
  return {
    given,
    failure,
    budget,
    rows: currents.map((milliamp) => {
      const volts = (ohm: number) => (milliamp / 1000) * ohm;
      const terminal = given.supplyV - given.barrierDropV - volts(budget.totalOhm);
      return {
        milliamp,
        region: signalRegion(milliamp),
        cable: volts(budget.wireOhm),
        resistor: volts(given.senseOhm),
        barrier: volts(given.barrierOhm) + given.barrierDropV,
        other: volts(given.otherOhm),
        terminal,
        isEnough: terminal >= given.liftOffV - ROUNDING_V,
      };
    }),
    working: () => workSupply(given, failure).working,
  };
}

export interface MeasuredResult {
  /** What should stand there, V, and what lies in the loop more than was entered, ohms. */
  readonly expected: number;
  readonly ohm: number;
}

/** @throws CoreError at the field that is wrong */
export function computeMeasured(fields: SupplyFields, { given, budget }: SupplyResult): MeasuredResult {
  const measured = numberAt(fields, 'measured', 'The voltage measured');
  const at = numberAt(fields, 'at', 'The current while it was measured');
  return {
    ohm: badConnectionOhm(given, measured, at),
    expected: given.supplyV - given.barrierDropV - (at / 1000) * budget.totalOhm,
  };
}

export interface ReceiverRow {
  readonly milliamp: number;
  readonly nominal: number;
  readonly least: number;
  readonly most: number;
  /** Largest error either way against 250 ohms, % of 4 V. */
  readonly percent: number;
}

const RECEIVED = [4, 8, 12, 16, 20] as const;
const IDEAL_OHM = 250;
const SPAN_V = 4;

/** What a computer input of 1 to 5 V gets. @throws CoreError at the field that is wrong */
export function computeReceiver(fields: SupplyFields): readonly ReceiverRow[] {
  const input = fields.input.trim() === '' ? null : numberAt(fields, 'input', 'The input resistance');
  const resistor = numberAt(fields, 'resistor', 'The resistor');
  const tolerance = numberAt(fields, 'tolerance', 'The tolerance of the resistor');
  return RECEIVED.map((milliamp) => {
    const { nominalV, leastV, mostV } = receiverVoltage(milliamp, resistor, tolerance, input);
    const off = (volt: number) => ((volt - (milliamp / 1000) * IDEAL_OHM) / SPAN_V) * 100;
    const [low, high] = [off(leastV), off(mostV)];
    return {
      milliamp,
      nominal: nominalV,
      least: leastV,
      most: mostV,
      // As large either way but for the last digit: said upwards.
      percent: Math.abs(low) > Math.abs(high) + 1e-9 ? low : high,
    };
  });
}

/** A length in the unit of the fields, to three digits. */
export const lengthWords = (fields: SupplyFields, metres: number): string =>
  `${formatSignificant(convert(metres, 'm', lengthUnitOf(fields)), 3)} ${unitLabel(lengthUnitOf(fields))}`;

export const noteOfSupply = (fields: SupplyFields, { budget, failure }: SupplyResult): string =>
  `Loop supply: ${formatFixed(budget.terminalV.atFailure, 2)} V at the terminals at ${failure} mA, lift-off ${fields.liftOff} V; ${formatFixed(budget.totalOhm, 1)} Ω in the loop.`;

export const csvOfSupply = (rows: readonly SupplyRow[]): string =>
  Papa.unparse({
    fields: [
      'Current, mA',
      'Cable, V',
      'Resistor, V',
      'Barrier, V',
      'Other, V',
      'At the terminals, V',
      'Enough',
    ],
    data: rows.map(({ milliamp, cable, resistor, barrier, other, terminal, isEnough }) => [
      milliamp,
      ...[cable, resistor, barrier, other, terminal].map((volt) => volt.toFixed(3)),
      isEnough ? 'yes' : 'no',
    ]),
  });
