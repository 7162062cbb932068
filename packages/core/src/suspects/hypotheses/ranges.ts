/** Set up for another range or another transfer function, or limited. */
import { LINEAR, transferOf } from '../../signal';
import type { Variant } from '../evidence';
import { between, logNormal, normal } from '../priors';
import { alike, alone, type Case } from './case';

/** First digits that upper range values usually have. */
const ROUND = [1, 1.2, 1.25, 1.5, 1.6, 2, 2.5, 3, 4, 5, 6, 7.5, 8];

/** Round upper range values beside one, within a factor of four. */
function roundValues(urv: number): number[] {
  const size = Math.abs(urv);
  const decade = 10 ** Math.floor(Math.log10(size));
  return [-1, 0, 1]
    .flatMap((power) => ROUND.map((digits) => Number((digits * decade * 10 ** power).toPrecision(6))))
    .filter((value) => value !== size && value > size / 4 && value < size * 4)
    .map((value) => Math.sign(urv) * value);
}

/** Any other range, and round ones before others where it begins at nothing. */
export function rangeVariants(of: Case): Variant[] {
  const { lrv, urv } = of.range;
  const free: Variant[] = [
    {
      weight: 0.25,
      parameters: [logNormal(1, 0.3)],
      condition: ([by = 1]) => ({ urv: lrv + (urv - lrv) * by }),
    },
    {
      weight: 0.25,
      parameters: [normal(0, 0.2 * of.span), logNormal(1, 0.3)],
      condition: ([shift = 0, by = 1]) => ({ lrv: lrv + shift, urv: lrv + shift + (urv - lrv) * by }),
    },
  ];
  if (lrv !== 0) return free.map((one) => ({ ...one, weight: one.weight * 2 }));
  return [
    ...free,
    ...alike(
      roundValues(urv).map((value) => ({ parameters: [], condition: () => ({ urv: value }) })),
      0.5,
    ),
  ];
}

/** A range that is known from elsewhere. */
export function neighbouringRanges(of: Case): Variant[] {
  const { neighbours = [] } = of;
  return alike(
    neighbours.map(({ name, range }) => ({
      name,
      parameters: [],
      condition: () => ({ lrv: range.lrv, urv: range.urv, transfers: [transferOf(range)] }),
    })),
  );
}

/** A square root where none should be, or at the display instead of the output. */
export function misplaced(of: Case): Variant[] {
  const { readings, range } = of;
  const root = { kind: 'square-root' } as const;
  if (!of.isRoot)
    return transferOf(range).kind === 'linear'
      ? alone({ parameters: [], condition: () => ({ transfers: [root] }) })
      : [];
  // Taken for the display and not for the output, or for the display once more.
  if (readings.every(({ shown }) => shown === undefined)) return [];
  const own = transferOf(range);
  return alike([
    { parameters: [], condition: () => ({ transfers: [LINEAR], displayTransfers: [own] }) },
    { parameters: [], condition: () => ({ displayTransfers: [own, root] }) },
  ]);
}

/** The square root taken twice. */
export function doubled(of: Case): Variant[] {
  const own = transferOf(of.range);
  // Where the display takes one of them, it reads right.
  return alike(
    [null, [own]].map((displayTransfers) => ({
      parameters: [],
      condition: () => ({ transfers: [own, { kind: 'square-root' as const }], displayTransfers }),
    })),
  );
}

/** An output that goes no further than a limit. */
export function limits(of: Case): Variant[] {
  const { outputLow, outputHigh } = of.range;
  const span = outputHigh - outputLow;
  const at = (share: number): number => outputLow + share * span;
  const [upper, lower] = span > 0 ? (['most', 'least'] as const) : (['least', 'most'] as const);
  return [
    {
      weight: 0.75,
      name: 'high',
      parameters: [between(at(0.2), at(1))],
      condition: ([value = 0]) => ({ [upper]: value }),
    },
    {
      weight: 0.25,
      name: 'low',
      parameters: [between(at(0), at(0.8))],
      condition: ([value = 0]) => ({ [lower]: value }),
    },
  ];
}
