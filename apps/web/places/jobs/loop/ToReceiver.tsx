'use client';
/** A trim to a receiver instead of to the standard: what it would do to every other one stands before anything is logged. */
import { formatSigned } from '@barys/core/text';
import type { ReceiverTrim } from '@barys/store/runs';
import Alert from '@mui/material/Alert';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

function effectWords({ receiver, offPercent, percent, others }: ReceiverTrim): string {
  const elsewhere = others.map((one) => `${one.name} by ${formatSigned(one.percent, 2)} %`).join(', ');
  return `${receiver} is off by ${formatSigned(offPercent, 2)} % of its span. Trimmed until it agrees, the transmitter itself would be off by ${formatSigned(percent, 2)} % of its span${elsewhere === '' ? '' : `, ${elsewhere}`}. Say why in the note; the record keeps it.`;
}

export function ToReceiver({ receivers }: { receivers: readonly ReceiverTrim[] }) {
  const [chosen, choose] = useState('');
  const trim = receivers.find(({ receiver }) => receiver === chosen);
  return (
    <>
      <TextField
        select
        name="toReceiver"
        label="Trimmed to"
        value={chosen}
        onChange={({ target }) => choose(target.value)}
        fullWidth
        sx={{ mt: 1 }}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      >
        <MenuItem value="">the standard</MenuItem>
        {receivers.map(({ receiver }) => (
          <MenuItem key={receiver} value={receiver}>
            {receiver}, a receiver
          </MenuItem>
        ))}
      </TextField>
      {trim !== undefined && (
        <Alert severity="warning" variant="outlined" sx={{ mt: 1 }}>
          {trim.isProven
            ? effectWords(trim)
            : `${trim.receiver} is not proven: by itself it is not inside its own tolerance at every point. A transmitter is never adjusted to a receiver that is wrong. ${effectWords(trim)}`}
        </Alert>
      )}
    </>
  );
}
