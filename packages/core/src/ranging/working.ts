/** How the figures of a range change come about, step by step. */
import { Working, type Given, type Worked } from '../working';
import { greatestSpanOf, type BodyReach } from './judge';

const SOURCE = 'common practice';

/**
 * Span, turndown and shift of zero of a range in a body, and the accuracy that the body's formula gives there.
 * @param accuracy per cent of span as a formula in `span` and `URL`; empty where none is known
 * @returns the turndown, or the accuracy where there is a formula
 * @throws CoreError as `judgeRange`, and of a formula that has no value
 */
export function workRange(
  body: BodyReach,
  { lrv, urv, unit, accuracy }: { lrv: number; urv: number; unit: string; accuracy: string },
): Worked {
  const work = new Working();
  const value = (figure: number): Given => ({ value: figure, unit });
  work.step({
    what: 'Span of the range',
    symbol: 'span',
    formula: 'abs(URV - LRV)',
    given: { URV: value(urv), LRV: value(lrv) },
    unit,
    source: SOURCE,
  });
  let last = work.step({
    what: 'Turndown: the greatest span over it',
    symbol: 'turndown',
    formula: 'span_max / span',
    given: { span_max: value(greatestSpanOf(body)) },
    unit: '',
    source: SOURCE,
  });
  work.step({
    what: 'How far 0 % lies from zero',
    symbol: 'shift',
    formula: 'min(LRV, URV) / span * 100',
    given: { URV: value(urv), LRV: value(lrv) },
    unit: '% of span',
    source: SOURCE,
  });
  if (accuracy !== '')
    last = work.step({
      what: 'Accuracy of the body at this span',
      symbol: 'accuracy',
      formula: accuracy,
      given: { URL: value(body.upperRangeLimit) },
      unit: '% of span',
      source: 'the maker’s formula, as the catalogue has it',
    });
  return { value: last, working: work.steps };
}
