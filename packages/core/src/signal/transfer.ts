/**
 * Transfer functions: which share s of the output span belongs to a share t of the input span, both 0 to 1 and beyond.
 *
 * A differential pressure below zero gives zero flow. A cut-off counts in per cent of flow, and a flow exactly at it is
 * kept. The linear start is the chord from zero to the curve at the stated flow; the other start has slope one in
 * per cent of differential and steps to the curve. All common practice, without a source that fixes them.
 * `share` serves speed, `exactShare` decides verdicts; a test holds them together.
 */
import { CoreError, requireBetween, requireFinite } from '../errors';
import { exact, rational, root, toNumber, type Exact, type Surd } from '../exact';

export interface TablePoint {
  /** Per cent of the input span. */
  readonly inputPercent: number;
  /** Per cent of the output span. */
  readonly outputPercent: number;
}

export type Transfer =
  | { readonly kind: 'linear' }
  | { readonly kind: 'square-root' }
  | { readonly kind: 'square-root-cut-off'; readonly cutOffPercentOfFlow: number }
  | { readonly kind: 'square-root-linear-start'; readonly linearToPercentOfFlow: number }
  | { readonly kind: 'square-root-slope-one'; readonly linearToPercentOfInput: number }
  | { readonly kind: 'table'; readonly points: readonly TablePoint[] };

export const LINEAR: Transfer = { kind: 'linear' };

const MOST_TABLE_POINTS = 1000;

/**
 * Refuses a transfer function that cannot be computed with.
 * @throws CoreError `out-of-bounds`, `too-few-points`, `too-many`, `not-rising`, `not-finite`
 */
export function checkTransfer(transfer: Transfer): void {
  const percent = [0, 100, '%'] as const;
  switch (transfer.kind) {
    case 'linear':
    case 'square-root':
      return;
    case 'square-root-cut-off':
      requireBetween(
        'The low-flow cut-off',
        transfer.cutOffPercentOfFlow,
        percent,
        'transferFunction.cutOffPercentOfFlow',
      );
      return;
    case 'square-root-linear-start':
      requireBetween(
        'The end of the linear start',
        transfer.linearToPercentOfFlow,
        percent,
        'transferFunction.linearToPercentOfFlow',
      );
      return;
    case 'square-root-slope-one':
      requireBetween(
        'The end of the linear start',
        transfer.linearToPercentOfInput,
        percent,
        'transferFunction.linearToPercentOfInput',
      );
      return;
    case 'table':
      checkTable(transfer.points);
  }
}

function checkTable(points: readonly TablePoint[]): void {
  const field = 'transferFunction.points';
  if (points.length < 2)
    throw new CoreError({ code: 'too-few-points', count: points.length, least: 2 }, field);
  if (points.length > MOST_TABLE_POINTS)
    throw new CoreError(
      { code: 'too-many', name: 'Points of a table', count: points.length, most: MOST_TABLE_POINTS },
      field,
    );
  points.forEach((point, index) => {
    requireFinite('Input of a table point', point.inputPercent, field);
    requireFinite('Output of a table point', point.outputPercent, field);
    const before = points[index - 1];
    if (before !== undefined && point.inputPercent <= before.inputPercent)
      throw new CoreError({ code: 'not-rising', name: 'The input of the table' }, field);
    // An output that stays or falls would have no inverse.
    if (before !== undefined && point.outputPercent <= before.outputPercent)
      throw new CoreError({ code: 'not-rising', name: 'The output of the table' }, field);
  });
}

/** The pair of table points that a value lies between; beyond the ends, the first or the last pair. */
function segment(
  points: readonly TablePoint[],
  value: number,
  by: keyof TablePoint,
): readonly [TablePoint, TablePoint] {
  const found = points.findIndex((point, index) => index > 0 && point[by] >= value);
  const upper = found === -1 ? points.length - 1 : found;
  const [low, high] = [points[upper - 1], points[upper]];
  if (low === undefined || high === undefined)
    throw new CoreError(
      { code: 'too-few-points', count: points.length, least: 2 },
      'transferFunction.points',
    );
  return [low, high];
}

/** Whether a share lies below a knee; one that rounding has pushed off the knee still counts as on it, so as kept. */
export const isBelow = (t: number, knee: number): boolean => t < knee * (1 - 1e-12);

/** Share of the output span for a share of the input span, in double precision. */
export function share(transfer: Transfer, t: number): number {
  if (transfer.kind === 'linear') return t;
  if (transfer.kind === 'table') {
    const [low, high] = segment(transfer.points, t * 100, 'inputPercent');
    const slope = (high.outputPercent - low.outputPercent) / (high.inputPercent - low.inputPercent);
    return (low.outputPercent + (t * 100 - low.inputPercent) * slope) / 100;
  }
  if (t <= 0) return 0;
  switch (transfer.kind) {
    case 'square-root':
      return Math.sqrt(t);
    case 'square-root-cut-off':
      return isBelow(t, (transfer.cutOffPercentOfFlow / 100) ** 2) ? 0 : Math.sqrt(t);
    case 'square-root-linear-start': {
      const flow = transfer.linearToPercentOfFlow / 100;
      return isBelow(t, flow * flow) ? t / flow : Math.sqrt(t);
    }
    case 'square-root-slope-one':
      return isBelow(t, transfer.linearToPercentOfInput / 100) ? t : Math.sqrt(t);
  }
}

/** The same, exact. */
export function exactShare(transfer: Transfer, t: Exact): Surd {
  if (transfer.kind === 'linear') return rational(t);
  if (transfer.kind === 'table') {
    const percent = t.mul(100);
    const [low, high] = segment(transfer.points, toNumber(percent), 'inputPercent');
    const slope = exact(high.outputPercent)
      .sub(exact(low.outputPercent))
      .div(exact(high.inputPercent).sub(exact(low.inputPercent)));
    return rational(percent.sub(exact(low.inputPercent)).mul(slope).add(exact(low.outputPercent)).div(100));
  }
  if (t.compare(0) <= 0) return rational(exact(0));
  switch (transfer.kind) {
    case 'square-root':
      return root(t);
    case 'square-root-cut-off': {
      const flow = exact(transfer.cutOffPercentOfFlow).div(100);
      return t.compare(flow.mul(flow)) < 0 ? rational(exact(0)) : root(t);
    }
    case 'square-root-linear-start': {
      const flow = exact(transfer.linearToPercentOfFlow).div(100);
      return t.compare(flow.mul(flow)) < 0 ? rational(t.div(flow)) : root(t);
    }
    case 'square-root-slope-one':
      return t.compare(exact(transfer.linearToPercentOfInput).div(100)) < 0 ? rational(t) : root(t);
  }
}

/**
 * Share of the input span that a share of the output span stands for, exact. Below zero the square is taken with its
 * sign, so that a current under the live zero still gives an error. Between zero and a cut-off the pure square is
 * taken, and where an output steps over a value, the input at the step.
 */
export function exactInverseShare(transfer: Transfer, s: Exact): Exact {
  const square = s.mul(s.abs());
  switch (transfer.kind) {
    case 'linear':
      return s;
    case 'square-root':
    case 'square-root-cut-off':
      return square;
    case 'square-root-linear-start': {
      const flow = exact(transfer.linearToPercentOfFlow).div(100);
      return s.compare(0) > 0 && s.compare(flow) < 0 ? s.mul(flow) : square;
    }
    case 'square-root-slope-one': {
      const step = exact(transfer.linearToPercentOfInput).div(100);
      if (s.compare(0) <= 0) return square;
      if (s.compare(step) < 0) return s;
      return square.compare(step) < 0 ? step : square;
    }
    case 'table': {
      const percent = s.mul(100);
      const [low, high] = segment(transfer.points, toNumber(percent), 'outputPercent');
      const slope = exact(high.inputPercent)
        .sub(exact(low.inputPercent))
        .div(exact(high.outputPercent).sub(exact(low.outputPercent)));
      return percent.sub(exact(low.outputPercent)).mul(slope).add(exact(low.inputPercent)).div(100);
    }
  }
}

/** The inverse in double precision, for the same conventions. */
export function inverseShare(transfer: Transfer, s: number): number {
  const square = s * Math.abs(s);
  switch (transfer.kind) {
    case 'linear':
      return s;
    case 'square-root':
    case 'square-root-cut-off':
      return square;
    case 'square-root-linear-start': {
      const flow = transfer.linearToPercentOfFlow / 100;
      return s > 0 && s < flow ? s * flow : square;
    }
    case 'square-root-slope-one': {
      const step = transfer.linearToPercentOfInput / 100;
      if (s <= 0) return square;
      if (s < step) return s;
      return Math.max(step, square);
    }
    case 'table': {
      const [low, high] = segment(transfer.points, s * 100, 'outputPercent');
      const slope = (high.inputPercent - low.inputPercent) / (high.outputPercent - low.outputPercent);
      return (low.inputPercent + (s * 100 - low.outputPercent) * slope) / 100;
    }
  }
}

/**
 * Slope ds/dt of the transfer function, the sensitivity of the output share to the input share.
 * @throws CoreError `undefined-result` for a square root at zero, where the slope has no bound
 */
export function slope(transfer: Transfer, t: number): number {
  switch (transfer.kind) {
    case 'linear':
      return 1;
    case 'table': {
      const [low, high] = segment(transfer.points, t * 100, 'inputPercent');
      return (high.outputPercent - low.outputPercent) / (high.inputPercent - low.inputPercent);
    }
    case 'square-root-cut-off':
      if (isBelow(t, (transfer.cutOffPercentOfFlow / 100) ** 2)) return 0;
      break;
    case 'square-root-linear-start': {
      const flow = transfer.linearToPercentOfFlow / 100;
      if (t >= 0 && isBelow(t, flow * flow)) return 1 / flow;
      break;
    }
    case 'square-root-slope-one':
      if (t >= 0 && isBelow(t, transfer.linearToPercentOfInput / 100)) return 1;
      break;
    case 'square-root':
      break;
  }
  if (t < 0) return 0;
  if (t === 0)
    throw new CoreError(
      {
        code: 'undefined-result',
        name: 'The sensitivity',
        why: 'a square root rises without bound at zero flow; use the Monte Carlo result there',
      },
      'applied',
    );
  return 0.5 / Math.sqrt(t);
}
