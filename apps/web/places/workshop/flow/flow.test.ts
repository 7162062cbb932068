import { describe, expect, it } from 'vitest';
import {
  computeFactor,
  computeFlow,
  computeGas,
  computeNoise,
  computeOne,
  computeZero,
  configurationOfFlow,
  csvOfFlow,
  noteOfFlow,
} from './compute';
import { FLOW_FIELDS, orFlowFault, type FlowFields } from './fields';

const flow = (patch: Partial<FlowFields> = {}) => {
  const fields = { ...FLOW_FIELDS, ...patch };
  return { fields, result: computeFlow(fields) };
};
const wrong = (patch: Partial<FlowFields>, work: (fields: FlowFields) => unknown = computeFlow) =>
  orFlowFault<object>(() => Object(work({ ...FLOW_FIELDS, ...patch })) as object);

describe('a flow as it is typed', () => {
  it('stands in a table of both low ends, even in flow or in differential', () => {
    const { rows } = flow().result;
    expect(rows).toHaveLength(11);
    // By hand: 10 % of flow is 1 % of 250 mbar; on the chord to 12 % it is 10 / 12 of that per cent of flow.
    expect(rows[1]).toEqual({
      percent: '10.00',
      differential: '2.50',
      cut: ['4.000', '0.00'],
      linear: ['5.333', '26.67'],
    });
    expect(rows[5]).toMatchObject({
      differential: '62.50',
      cut: ['12.000', '160.00'],
      linear: ['12.000', '160.00'],
    });
    const even = flow({ evenIn: 'differential', step: '25' }).result.rows;
    expect(even.map(({ differential }) => differential)).toEqual([
      '0.00',
      '62.50',
      '125.00',
      '187.50',
      '250.00',
    ]);
    expect(even[1]?.percent).toBe('50.00');
    // A step that does not end at 100 gets its end.
    expect(flow({ step: '30' }).result.rows.at(-1)?.percent).toBe('100.00');
  });

  it('has the rangeability of its cut-off, and where the low end ends', () => {
    const { result } = flow({ cutOff: '10', linearTo: '20' });
    expect(result.rangeability).toBe(10);
    expect(result.knees).toEqual(['2.50', '10.00']);
    expect(flow({ cutOff: '0' }).result.rangeability).toBeNull();
  });

  it('says what a wrong zero and a tilt do', () => {
    // Common practice: 0.07 of 172.75 shows about 2 on a scale of 0 to 100.
    const { fields, result } = flow({
      differentialMax: '172.75',
      flowMax: '100',
      zero: '0.07',
      cutOff: '12',
    });
    const zero = computeZero(fields, result);
    expect(Number(zero.atRest)).toBeCloseTo(2.01, 1);
    expect(Number(zero.atRestCut)).toBe(0);
    expect(zero.rows[0]).toMatchObject({ percent: '0', error: '+2.01', percentOfFlow: '–' });
    expect(zero.rows.at(-1)?.error).toBe('+0.02');
    // 930 kg/m³, 60 mm, 90°: 5.472 mbar.
    const tilted = flow({ zero: '0', tilt: '90' });
    expect(computeZero(tilted.fields, tilted.result).off).toBeCloseTo(5.472, 3);
    const low = flow({ zero: '-0.1' });
    expect(computeZero(low.fields, low.result).atRest).toBe('0.00');
  });

  it('is corrected for a gas, gauge with the barometer or absolute', () => {
    // K-P08 of the core's cases, with 1.013 bar of air.
    const given = {
      pressure: '3.2',
      designPressure: '4',
      temperature: '5',
      designTemperature: '15',
      indicated: '840',
      barometer: '1013',
    };
    const gas = computeGas(flow(given).fields, flow(given).result);
    expect(gas.factor).toBeCloseTo(0.9330752225869, 9);
    const absolute = { ...given, kind: 'absolute', pressure: '4.213', designPressure: '5.013' };
    expect(computeGas(flow(absolute).fields, flow(absolute).result).factor).toBeCloseTo(gas.factor, 9);
  });

  it('counts, and shows noise behind each damping and the one that is chosen', () => {
    expect(computeFactor(flow().fields, flow().result)).toBeCloseTo(320 / 3600, 12);
    const rows = computeNoise(flow({ damping: '3' }).fields, flow().result);
    expect(rows.map(({ dampingS }) => dampingS)).toEqual([0, 0.5, 1, 2, 3, 5, 10]);
    expect(rows.find(({ isChosen }) => isChosen)?.dampingS).toBe(3);
    const scatter = rows.map(({ damped }) => damped.deviationPercent);
    expect(scatter).toEqual([...scatter].sort((a, b) => b - a));
  });

  it('is told one by one, with its working', () => {
    const one = computeOne(flow({ applied: '2.5' }).fields, flow().result);
    expect([one.cut, one.linear]).toEqual(['0.00', '26.67']);
    expect(one.working().length).toBe(3);
  });

  it('leaves as CSV, as a configuration and as a note', () => {
    const { fields, result } = flow();
    expect(csvOfFlow(fields, result.rows).split('\r\n').slice(0, 3)).toEqual([
      '"Flow, %","Differential, mbar","Output cut to zero, mA","Flow cut to zero, m³/h","Output with a linear start, mA","Flow with a linear start, m³/h"',
      '0.00,0.00,4.000,0.00,4.000,0.00',
      '10.00,2.50,4.000,0.00,5.333,26.67',
    ]);
    expect(configurationOfFlow(fields, result)).toMatchObject({
      lrv: '0',
      urv: '250',
      transfer: 'square-root-cut-off',
      knee: '12',
      displayHigh: '320',
    });
    expect(noteOfFlow(fields, result)).toContain('nothing below 12 % of flow, 3.60 mbar');
  });

  it('tells what is wrong at its field', () => {
    expect(wrong({ flowMax: '0' })).toMatchObject({ field: 'flowMax' });
    expect(wrong({ differentialMax: 'x' })).toMatchObject({
      field: 'differentialMax',
      message: expect.stringContaining('not a number') as string,
    });
    expect(wrong({ differentialMax: '-1' })).toMatchObject({ field: 'differentialMax' });
    expect(wrong({ cutOff: '120' })).toMatchObject({ field: 'cutOff' });
    expect(wrong({ linearTo: '-1' })).toMatchObject({ field: 'linearTo' });
    for (const step of ['0', '-5', '200', '0.01'])
      expect(wrong({ step }), step).toMatchObject({ field: 'step' });
    const part = (
      patch: Partial<FlowFields>,
      work: (fields: FlowFields, result: ReturnType<typeof computeFlow>) => unknown,
    ) => wrong(patch, (fields) => work(fields, computeFlow(fields)));
    expect(part({ temperature: '-300' }, computeGas)).toMatchObject({ field: 'temperature' });
    expect(part({ pressure: '-2' }, computeGas)).toMatchObject({ field: 'pressure' });
    expect(part({ counts: '0' }, computeFactor)).toMatchObject({ field: 'counts' });
    expect(part({ noise: '-1' }, computeNoise)).toMatchObject({ field: 'noise' });
    expect(part({ noiseTime: '0' }, computeNoise)).toMatchObject({ field: 'noiseTime' });
    expect(part({ damping: '-1' }, computeNoise)).toMatchObject({ field: 'damping' });
    expect(part({ zero: '' }, computeZero)).toMatchObject({ field: 'zero' });
    expect(part({ applied: 'much' }, computeOne)).toMatchObject({ field: 'applied' });
  });
});
