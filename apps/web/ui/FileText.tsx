'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { Refused } from './Refused';

/** A table is no larger than this. */
const LARGEST = 200_000;

/** Takes the text of a file that somebody chooses. */
export function FileText({ label, onText }: { label: string; onText: (text: string) => void }) {
  const [error, setError] = useState<string | null>(null);
  const read = async (file: File | undefined) => {
    if (file === undefined) return;
    if (file.size > LARGEST) {
      setError(`${file.name} is larger than ${LARGEST / 1000} kB: that is no table.`);
      return;
    }
    setError(null);
    onText((await file.text()).replace(/^\uFEFF/, ''));
  };
  return (
    <div>
      <Button
        component="label"
        variant="outlined"
        role={undefined}
        tabIndex={-1}
        // The field itself is what keys reach; its frame says so.
        sx={{ minHeight: 44, '&:focus-within': { outline: '2px solid var(--now)', outlineOffset: 2 } }}
      >
        {label}
        <input
          type="file"
          accept=".csv,.txt,text/csv,text/plain"
          aria-label={label}
          onChange={(event) => {
            void read(event.target.files?.[0]);
            // The same file again is read again.
            event.target.value = '';
          }}
          style={{ position: 'absolute', width: 1, height: 1, opacity: 0 }}
        />
      </Button>
      <Refused answer={{ error }} />
    </div>
  );
}
