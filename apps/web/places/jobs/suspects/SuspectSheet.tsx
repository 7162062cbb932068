'use client';
/** Suspicions, the likeliest first: what each is, how large, how likely, and the test that decides. */
import type { Suspicion } from '@barys/core/suspects';
import Box from '@mui/material/Box';
import Radio from '@mui/material/Radio';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { Figure } from '@/ui/Figure';
import { Sheet } from '@/ui/Sheet';
import { Working } from '@/ui/Working';
import { likelihoodWords, type ShownSuspect, type ShownSuspects } from './shown';

/** How likely, as a length; its figure stands beside it. */
function Bar({ probability }: { probability: number }) {
  return (
    <Box
      aria-hidden
      sx={{
        display: { xs: 'none', sm: 'block' },
        width: 88,
        height: 9,
        bgcolor: 'divider',
        '@media print': { display: 'none' },
      }}
    >
      <Box sx={{ width: `${probability * 100}%`, height: '100%', bgcolor: 'text.primary' }} />
    </Box>
  );
}

function Row({
  suspect: { suspicion, title, figure, test, probability, left },
  group,
  isChosen,
  onChoose,
}: {
  suspect: ShownSuspect;
  /** Radio buttons of one name belong together. */
  group: string;
  isChosen: boolean;
  onChoose: (suspicion: Suspicion) => void;
}) {
  return (
    <Box
      component="label"
      sx={{
        display: 'grid',
        gridTemplateColumns: 'auto minmax(0, 1fr) auto',
        alignItems: 'start',
        columnGap: 1,
        py: 0.75,
        borderBottom: 1,
        borderColor: 'divider',
        cursor: 'pointer',
        bgcolor: isChosen ? 'var(--wash)' : undefined,
      }}
    >
      <Radio
        name={group}
        value={suspicion}
        checked={isChosen}
        onChange={() => onChoose(suspicion)}
        sx={{ p: 0.5 }}
      />
      <Box>
        <Typography component="span" sx={{ fontWeight: 700 }}>
          {title}
        </Typography>
        {figure !== '' && <Figure sx={{ display: 'block', whiteSpace: 'normal' }}>{figure}</Figure>}
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          {test}
        </Typography>
        {isChosen && (
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {left}.
          </Typography>
        )}
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, pt: 0.5, pr: 0.5 }}>
        <Bar probability={probability} />
        <Box sx={{ minWidth: { xs: 0, sm: 72 }, textAlign: 'right' }}>
          <Figure>{likelihoodWords(probability)}</Figure>
        </Box>
      </Box>
    </Box>
  );
}

export function SuspectSheet({
  shown: { headline, isTold, suspects, others, working },
  title = 'What would look like this',
  chosen,
  onChoose,
  children,
}: {
  shown: ShownSuspects;
  title?: string;
  chosen: Suspicion;
  onChoose: (suspicion: Suspicion) => void;
  children?: ReactNode;
}) {
  return (
    <Sheet title={title} aside="before anything is turned">
      <Typography sx={{ fontSize: 19, lineHeight: 1.3, fontWeight: isTold ? 700 : undefined, mb: 0.5 }}>
        {headline}
      </Typography>
      <Box role="radiogroup" aria-label="Suspicions, the likeliest first">
        {suspects.map((suspect) => (
          <Row
            key={suspect.suspicion}
            suspect={suspect}
            group={title}
            isChosen={suspect.suspicion === chosen}
            onChoose={onChoose}
          />
        ))}
      </Box>
      {others > 0 && (
        <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.75 }}>
          {others} more were weighed and do not fit.
        </Typography>
      )}
      <Working of="this weighing" steps={working} />
      {children}
    </Sheet>
  );
}
