import { CONTROLLER_DRIVER } from '@barys/core/port';
import { wireSchema } from '@barys/store/benches';
import { describe, expect, it } from 'vitest';
import { ADDRESS_FIELDS, fieldsOfAddress, SHIPPED, wireOfFields } from './fields';

describe('an address as it is typed', () => {
  it.each(SHIPPED.map((driver) => [driver.name, driver] as const))(
    'is what was typed: %s',
    (_name, driver) => {
      for (const at of [
        { kind: 'tcp', host: '10.0.0.7', port: 5025 },
        { kind: 'serial', path: '/dev/ttyUSB0', baud: 19_200, dataBits: 7, parity: 'even', stopBits: 2 },
      ] as const) {
        const wire = { speaks: 'text', at, driver } as const;
        const fields = fieldsOfAddress(3, wire);
        expect(fields.bench).toBe('3');
        expect(wireSchema.parse(wireOfFields(fields))).toEqual(wire);
      }
    },
  );

  it.each(['tcp', 'udp'] as const)('is what was typed: HART by %s', (kind) => {
    const wire = {
      speaks: 'HART-IP',
      at: { kind, host: '10.0.0.8', port: 5094 },
      pollingAddress: 3,
    } as const;
    expect(wireSchema.parse(wireOfFields(fieldsOfAddress(3, wire)))).toEqual(wire);
    const far = wireOfFields({ ...fieldsOfAddress(3, wire), pollingAddress: '64' });
    expect(wireSchema.safeParse(far).error?.issues.map(({ path }) => path.join('.'))).toEqual([
      'pollingAddress',
    ]);
  });

  it('says at which field something is wrong', () => {
    const wrong = (more: object) =>
      wireSchema
        .safeParse(
          wireOfFields({
            ...fieldsOfAddress(3, {
              speaks: 'text',
              at: { kind: 'tcp', host: 'a', port: 1 },
              driver: CONTROLLER_DRIVER,
            }),
            ...more,
          }),
        )
        .error?.issues.map(({ path }) => path.join('.'));
    expect(wrong({})).toBeUndefined();
    expect(wrong({ host: ' ' })).toContain('at.host');
    expect(wrong({ port: 'x' })).toEqual(['at.port']);
    expect(wrong({ pressureAnswer: '.*' })).toContain('driver.reads.pressure.answer');
    expect(wrong({ pressureAsk: '' })).toContain('driver.reads.pressure.ask');
    expect(wrong({ units: 'KPA' })).toContain('driver.units.0.ours');
    expect(wrong({ answerMs: '5' })).toEqual(['driver.answerMs']);
    expect(wireSchema.safeParse(wireOfFields(ADDRESS_FIELDS)).success).toBe(false);
  });
});
