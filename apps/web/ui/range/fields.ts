/** A range as it is typed: texts in fields, and the range that they describe. */
import { CoreError } from '@barys/core/errors';
import {
  SIGNALS,
  type DisplayScale,
  type SignalName,
  type SignalRange,
  type Transfer,
} from '@barys/core/signal';
import { readNumber } from '@/ui/readNumber';

export const RANGE_FIELDS = {
  lrv: '0',
  urv: '250',
  inputUnit: 'mbar',
  signal: 'mA-4-20',
  outputLow: '4',
  outputHigh: '20',
  outputUnit: 'mA',
  transfer: 'linear',
  knee: '12',
  table: '0 0; 50 60; 100 100',
  displayLow: '0',
  displayHigh: '100',
  displayUnit: '%',
};

export type RangeFields = Readonly<typeof RANGE_FIELDS>;

export const TRANSFER_WORD: Record<Transfer['kind'], string> = {
  linear: 'linear',
  'square-root': 'square root',
  'square-root-cut-off': 'square root, cut to zero at low flow',
  'square-root-linear-start': 'square root, linear start to the curve',
  'square-root-slope-one': 'square root, linear start of slope one',
  table: 'table of the instrument',
};

/** What the one figure of a transfer function means; null where it has none. */
export const KNEE_LABEL: Record<Transfer['kind'], string | null> = {
  linear: null,
  'square-root': null,
  'square-root-cut-off': 'Zero below, % of flow',
  'square-root-linear-start': 'Linear up to, % of flow',
  'square-root-slope-one': 'Linear up to, % of differential',
  table: null,
};

export const isSignal = (text: string): text is SignalName => Object.hasOwn(SIGNALS, text);
const isTransfer = (text: string): text is Transfer['kind'] => Object.hasOwn(TRANSFER_WORD, text);
export const transferKind = (text: string): Transfer['kind'] => (isTransfer(text) ? text : 'linear');

/**
 * A field's number.
 * @throws CoreError where nothing is typed or it is no number
 */
export function needed(text: string, name: string): number {
  const { value, error } = readNumber(text);
  if (error !== null) throw new CoreError({ code: 'not-a-number', text });
  if (value === null) throw new CoreError({ code: 'missing', name, why: 'the range is made of it' });
  return value;
}

/** @throws CoreError naming what is missing or wrong */
export function transferOfFields({
  transfer,
  knee,
  table,
}: Pick<RangeFields, 'transfer' | 'knee' | 'table'>): Transfer {
  const kind = transferKind(transfer);
  switch (kind) {
    case 'linear':
    case 'square-root':
      return { kind };
    case 'square-root-cut-off':
      return { kind, cutOffPercentOfFlow: needed(knee, 'The low-flow cut-off') };
    case 'square-root-linear-start':
      return { kind, linearToPercentOfFlow: needed(knee, 'The end of the linear start') };
    case 'square-root-slope-one':
      return { kind, linearToPercentOfInput: needed(knee, 'The end of the linear start') };
    case 'table':
      return {
        kind,
        points: table
          .split(/[;\n]/)
          .map((line) => line.trim())
          .filter((line) => line !== '')
          .map((line) => {
            const [input = '', output = ''] = line.split(/\s+/);
            return {
              inputPercent: needed(input, 'The input of a table point'),
              outputPercent: needed(output, 'The output of a table point'),
            };
          }),
      };
  }
}

/** @throws CoreError naming what is missing or wrong */
export function rangeOfFields(fields: RangeFields): SignalRange {
  return {
    lrv: needed(fields.lrv, 'The lower range value'),
    urv: needed(fields.urv, 'The upper range value'),
    outputLow: needed(fields.outputLow, 'The output at 0 %'),
    outputHigh: needed(fields.outputHigh, 'The output at 100 %'),
    transferFunction: transferOfFields(fields),
  };
}

/** @throws CoreError naming what is missing or wrong */
export const displayOfFields = (fields: RangeFields): DisplayScale => ({
  low: needed(fields.displayLow, 'The display at 0 %'),
  high: needed(fields.displayHigh, 'The display at 100 %'),
});

/** The one figure of a transfer function, with what it means; null where it has none. */
export function kneeOf(transfer: Transfer): number | null {
  switch (transfer.kind) {
    case 'square-root-cut-off':
      return transfer.cutOffPercentOfFlow;
    case 'square-root-linear-start':
      return transfer.linearToPercentOfFlow;
    case 'square-root-slope-one':
      return transfer.linearToPercentOfInput;
    case 'linear':
    case 'square-root':
    case 'table':
      return null;
  }
}
