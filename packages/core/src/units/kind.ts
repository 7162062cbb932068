/**
 * Kinds of pressure, which a unit does not tell. Gauge and compound are counted from the ambient pressure, vacuum
 * downwards from it, absolute from nothing; between these a barometer is needed, read at the station and not reduced
 * to sea level. A differential pressure has no place on either scale.
 */
import { CoreError, requirePositive } from '../errors';
import { exact, toNumber } from '../exact';
import { convertPressure, PRESSURE_UNITS, type PressureUnit } from './pressure';

export const PRESSURE_KINDS = ['gauge', 'absolute', 'differential', 'compound', 'vacuum'] as const;
export type PressureKind = (typeof PRESSURE_KINDS)[number];

export interface Pressure {
  readonly value: number;
  readonly unit: PressureUnit;
  readonly kind: PressureKind;
}

const belowNothing = (from: Pressure, to: { readonly kind: PressureKind }): CoreError =>
  new CoreError(
    {
      code: 'no-such-conversion',
      from: `This ${from.kind} pressure`,
      to: to.kind === 'absolute' ? 'an absolute one' : `a ${to.kind} one`,
      why: 'no absolute pressure is below zero',
    },
    'pressure',
  );

/**
 * Gives a pressure in another unit and kind.
 * @param barometer ambient pressure, absolute, needed from or to `absolute`
 * @throws CoreError `no-such-conversion` from or to differential, `missing` barometer, `not-positive` barometer,
 *   `out-of-bounds` for an absolute pressure below zero
 * @example convertKind({ value: 40, unit: 'kPa', kind: 'absolute' }, { unit: 'mbar', kind: 'gauge' }, { value: 100.2, unit: 'kPa' }) // -602
 */
export function convertKind(
  from: Pressure,
  to: { readonly unit: PressureUnit; readonly kind: PressureKind },
  barometer?: { readonly value: number; readonly unit: PressureUnit },
): number {
  if (from.kind === 'absolute' && from.value < 0) throw belowNothing(from, to);
  if (from.kind === to.kind) return convertPressure(from.value, from.unit, to.unit);
  if (from.kind === 'differential' || to.kind === 'differential')
    throw new CoreError(
      {
        code: 'no-such-conversion',
        from: `A ${from.kind} pressure`,
        to: `a ${to.kind} one`,
        why: 'a difference of two pressures does not say what either of them is',
      },
      'to',
    );
  const scale = (unit: PressureUnit) => PRESSURE_UNITS[unit].factor;
  const ambient = () => {
    if (barometer === undefined)
      throw new CoreError(
        {
          code: 'missing',
          name: 'The barometric pressure',
          why: `${from.kind} and ${to.kind} pressure differ by the pressure of the air here and now`,
        },
        'barometer',
      );
    requirePositive('The barometric pressure', barometer.value, 'barometer');
    return exact(barometer.value).mul(scale(barometer.unit));
  };
  const given = exact(from.value).mul(scale(from.unit));
  const gauge =
    from.kind === 'absolute' ? given.sub(ambient()) : from.kind === 'vacuum' ? given.neg() : given;
  const wanted = to.kind === 'absolute' ? gauge.add(ambient()) : to.kind === 'vacuum' ? gauge.neg() : gauge;
  if (to.kind === 'absolute' && wanted.compare(0) < 0) throw belowNothing(from, to);
  return toNumber(wanted.div(scale(to.unit)));
}
