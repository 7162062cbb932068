/** The stand-ins driven by a program that knows nothing of Barys: PyVISA with PyVISA-py, as Debian has them. */
import { execFile } from 'node:child_process';
import { promisify } from 'node:util';
import { expect, it } from 'vitest';
import { Simulation } from '../standIn';
import { startStandIns } from '../standIns';

/** How much faster than the clock the bench goes. */
const SPEED = 40;
const SCRIPT = new URL('../../test/five_points.py', import.meta.url).pathname;

interface Found {
  readonly identities: readonly string[];
  readonly unit: string;
  readonly points: readonly {
    readonly wanted: number;
    readonly reference: number;
    readonly unit: string;
    readonly indicator: number;
    readonly ampere: number;
  }[];
  readonly complete: readonly string[];
  readonly errors: readonly string[];
  readonly complaint: string;
}

it('every stand-in goes through a five-point check of PyVISA', async () => {
  const began = Date.now();
  const simulation = new Simulation(7, () => ((Date.now() - began) / 1000) * SPEED);
  const standIns = await startStandIns(7, simulation.now);
  const ports = [standIns.controller, standIns.indicator, standIns.meter].map(({ port }) => String(port));
  try {
    const { stdout } = await promisify(execFile)('/usr/bin/python3', [SCRIPT, ...ports], {
      timeout: 120_000,
    });
    const found = JSON.parse(stdout) as Found;
    expect(found.identities).toEqual([
      'Barys,simulated pressure controller,SIM-7,1',
      'Barys,simulated reference indicator,SIM-7,1',
      'Barys,simulated loop meter,SIM-7,1',
    ]);
    expect(found.unit).toBe('KPA');
    expect(found.points.map(({ wanted, unit }) => [wanted, unit])).toEqual(
      [0, 25, 50, 75, 100].map((wanted) => [wanted, 'KPA']),
    );
    for (const { wanted, reference, indicator, ampere } of found.points) {
      expect(Math.abs(reference - wanted)).toBeLessThan(0.1);
      expect(Math.abs(indicator - reference)).toBeLessThan(0.05);
      // 4 to 20 mA for 0 to 100 kPa; a sound transmitter is within 0.1 % of span.
      expect(Math.abs(ampere * 1000 - (4 + 0.16 * reference))).toBeLessThan(0.016);
    }
    expect(found.complete).toEqual(['1', '1', '1']);
    expect(found.errors).toEqual(Array<string>(3).fill('0,"No error"'));
    expect(found.complaint).toBe('-113,"Undefined header"');
  } finally {
    await standIns.close();
  }
});
