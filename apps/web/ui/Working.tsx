'use client';
/** Show the working: the steps of a result, each in symbols, with its numbers and units, and with its source. */
import type { Step } from '@barys/core/working';
import FunctionsOutlined from '@mui/icons-material/FunctionsOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { visuallyHidden } from '@mui/utils';
import { useId, useState } from 'react';
import { useLater } from './useLater';

const loadSteps = () => import('./WorkingSteps');

/** The steps, once what sets them is there. */
function Steps({ steps }: { steps: readonly Step[] }) {
  const part = useLater(loadSteps);
  if (part === null) return 'One moment …';
  if (part === 'away') return 'It cannot be shown while the server is away. Close it and open it again.';
  return <part.WorkingSteps steps={steps} />;
}

/** The small mark that opens the working of a figure; steps that cost something are made when they are asked for. */
export function Working({ of, steps }: { of: string; steps: readonly Step[] | (() => readonly Step[]) }) {
  const [isOpen, setIsOpen] = useState(false);
  const id = useId();
  return (
    <Box sx={{ '@media print': { display: isOpen ? 'block' : 'none' } }}>
      <Button
        size="small"
        startIcon={<FunctionsOutlined fontSize="small" />}
        aria-expanded={isOpen}
        aria-controls={isOpen ? id : undefined}
        onClick={() => setIsOpen(!isOpen)}
        sx={{ color: 'var(--now)', px: 1 }}
      >
        {isOpen ? 'Hide the working' : 'Show the working'}
        <Box component="span" sx={visuallyHidden}>
          {` of ${of}`}
        </Box>
      </Button>
      {isOpen && (
        <Box
          id={id}
          role="region"
          aria-label={`Working of ${of}`}
          tabIndex={0}
          sx={{ mt: 0.5, maxHeight: 420, overflow: 'auto', '@media print': { maxHeight: 'none' } }}
        >
          <Steps steps={typeof steps === 'function' ? steps() : steps} />
        </Box>
      )}
    </Box>
  );
}
