'use client';
/** The bench: what makes the pressure, the reference, the instrument with its controls, the meter. It is its own control. */
import type { PracticeBench } from '@barys/rig/practice';
import Box from '@mui/material/Box';
import useMediaQuery from '@mui/material/useMediaQuery';
import { FieldDrawing } from './FieldDrawing';
import { Instrument } from './Instrument';
import { Output } from './Loop';
import type { Do } from './parts';
import { Source } from './Source';

const svg = { display: 'block', maxHeight: 430 } as const;

export function BenchDrawing({ bench, onDo }: { bench: PracticeBench; onDo: Do }) {
  const isNarrow = useMediaQuery('(max-width: 599px)');
  if (bench.field !== null) return <FieldDrawing bench={bench} field={bench.field} onDo={onDo} />;
  const { outputUnit, readBy } = bench.lesson;
  const isReadApart = outputUnit === 'mA' || readBy === 'meniscus';
  const source = <Source bench={bench} onDo={onDo} />;
  const instrument = (
    <>
      <Instrument x={468} y={16} bench={bench} onDo={onDo} />
      <Output bench={bench} onDo={onDo} />
    </>
  );
  // A phone has the instrument above and what makes its pressure below, or its words could not be read.
  return (
    <Box role="group" aria-label="The bench" sx={{ '--word': isNarrow ? 1.17 : 1 }}>
      {isNarrow ? (
        <>
          <svg viewBox={isReadApart ? '304 6 450 410' : '304 6 450 250'} width="100%" style={svg}>
            {instrument}
          </svg>
          <svg viewBox="0 36 400 380" width="100%" style={svg}>
            {source}
          </svg>
        </>
      ) : (
        <svg viewBox="0 0 760 420" width="100%" style={svg}>
          {source}
          {instrument}
        </svg>
      )}
    </Box>
  );
}
