'use client';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { useState } from 'react';

/** Readings that were written on a field sheet are typed in with the time they were taken. */
export function FromSheet({ time, onTime }: { time: string; onTime: (time: string) => void }) {
  const [isOpen, setIsOpen] = useState(false);
  const toggle = () => {
    onTime('');
    setIsOpen(!isOpen);
  };
  return (
    <Stack direction="row" sx={{ gap: 1, alignItems: 'center', mt: 1.5, flexWrap: 'wrap' }}>
      <Button onClick={toggle} aria-expanded={isOpen}>
        {isOpen ? 'Readings are taken now' : 'From a field sheet'}
      </Button>
      {isOpen && (
        <TextField
          type="datetime-local"
          label="When they were taken"
          value={time}
          onChange={(event) => onTime(event.target.value)}
          helperText="Counts for the readings entered from here on"
          slotProps={{ inputLabel: { shrink: true } }}
        />
      )}
    </Stack>
  );
}
