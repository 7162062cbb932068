'use client';
/** Show the working: the steps of a result, each in symbols, with its numbers and units, and with its source. */
import { stepTex, type Step } from '@barys/core/working';
import FunctionsOutlined from '@mui/icons-material/FunctionsOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { visuallyHidden } from '@mui/utils';
import katex from 'katex';
import 'katex/dist/katex.min.css';
import { useId, useState } from 'react';

/** KaTeX escapes what it is given and makes no links or scripts (trust is off). */
function Formula({ tex }: { tex: string }) {
  const html = katex.renderToString(`\\displaystyle ${tex}`, {
    displayMode: false,
    throwOnError: false,
    trust: false,
  });
  return (
    <Box sx={{ py: 0.25, '& .katex': { fontSize: '1.05em' } }} dangerouslySetInnerHTML={{ __html: html }} />
  );
}

export function WorkingSteps({ steps }: { steps: readonly Step[] }) {
  return (
    <Box component="ol" sx={{ m: 0, pl: 4, '& > li': { mb: 1.25 } }}>
      {steps.map((step, index) => {
        const tex = stepTex(step);
        return (
          <li key={index}>
            <Typography variant="body2" sx={{ fontWeight: 600 }}>
              {step.what}
            </Typography>
            {tex.symbols !== '' && <Formula tex={tex.symbols} />}
            {tex.numbers !== '' && <Formula tex={tex.numbers} />}
            <Formula tex={tex.result} />
            <Typography
              variant="caption"
              sx={{ display: 'block', color: 'text.secondary', lineHeight: 1.35 }}
            >
              Source: {step.source}
            </Typography>
          </li>
        );
      })}
    </Box>
  );
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
          <WorkingSteps steps={typeof steps === 'function' ? steps() : steps} />
        </Box>
      )}
    </Box>
  );
}
