'use client';
import { CoreError } from '@barys/core/errors';
import { formatPlain, parseTyped } from '@barys/core/text';
import { isTooFast, leakLimit, leakOf, type LeakBasis } from '@barys/store/shapes';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Row } from '@/ui/Row';
import { Sheet } from '@/ui/Sheet';
import { leakRateInWords } from './words';

const shrunk = { htmlInput: { inputMode: 'decimal' as const }, inputLabel: { shrink: true } };

/** The rate of what is typed so far; null while it is no leak check yet. */
function rateOf(basis: LeakBasis, [startText, endText, minutes]: readonly string[], barometer: string) {
  try {
    const air = barometer.trim() === '' ? null : parseTyped(barometer).value;
    const entry = {
      startText: startText ?? '',
      endText: endText ?? '',
      minutes: parseTyped(minutes ?? '').value,
    };
    return leakOf(basis, entry, air);
  } catch (error) {
    if (error instanceof CoreError) return null;
    throw error;
  }
}

/** Shut in, waited, looked at again; the rate stands below as soon as it can be told. */
export function LeakFields({
  basis,
  unit,
  barometer,
}: {
  basis: LeakBasis;
  unit: string;
  barometer: string;
}) {
  const [typed, setTyped] = useState<readonly string[]>(['', '', '']);
  const isVacuum = basis.kind === 'vacuum';
  const of = basis.tolerance.percentOfSpan === 0 ? 'the reading' : 'span';
  const leak = rateOf(basis, typed, barometer);
  return (
    <Sheet
      title={isVacuum ? 'Rate of rise' : 'Leak check'}
      aside={`at most ${formatPlain(Number(leakLimit(basis).toPrecision(2)))} % of ${of} a minute`}
    >
      <Row>
        {[
          { name: 'leakStart', label: `${isVacuum ? 'Valved off' : 'Shut in'} at, ${unit}` },
          { name: 'leakEnd', label: `Later, ${unit}` },
          { name: 'leakMinutes', label: 'After, minutes' },
        ].map(({ name, label }, place) => (
          <TextField
            key={name}
            name={name}
            label={label}
            value={typed[place] ?? ''}
            onChange={({ target }) => setTyped(typed.with(place, target.value))}
            autoComplete="off"
            slotProps={shrunk}
          />
        ))}
      </Row>
      <Typography variant="body2" role="status" sx={{ mt: 1, minHeight: '1.5em' }}>
        {leak !== null && (
          <>
            {leakRateInWords(leak)}
            {isTooFast(leak) && (
              <strong>
                {leak.percentOfSpanPerMinute > 0
                  ? ': find the leak, or say above why it does not matter'
                  : ': away from the pressure of the air; wait until it rests, or say above why it does not matter'}
              </strong>
            )}
          </>
        )}
      </Typography>
    </Sheet>
  );
}
