'use client';
import { VESSEL_SHAPES } from '@barys/core/level';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { FileText } from '@/ui/FileText';
import { deskFields, pair } from '../deskFields';
import type { Fault } from '../typed';
import type { LevelFields } from './fields';
import { VOLUME_UNITS } from './volume';

/** The shape of what the level stands in, for its volume. */
export function VesselForm({
  fields,
  change,
  fault,
}: {
  fields: LevelFields;
  change: (patch: Partial<LevelFields>) => void;
  fault: Fault | null;
}) {
  const { number, choice } = deskFields(fields, change, fault);
  const { shape } = fields;
  return (
    <Stack sx={{ gap: 1.25, displayPrint: 'none' }}>
      <Box sx={pair}>
        {choice('shape', 'Shape', [['', 'not asked'], ...VESSEL_SHAPES.map((one) => [one, one] as const)])}
        {choice(
          'volume',
          'Volumes in',
          Object.keys(VOLUME_UNITS).map((unit) => [unit, unit]),
        )}
        {(shape === 'sphere' || shape.endsWith('cylinder')) && number('diameter', 'Inside diameter')}
        {shape === 'horizontal cylinder' && number('length', 'Length without heads')}
        {shape === 'horizontal cylinder' && number('head', 'Depth of a head')}
        {shape === 'cone' && number('bottom', 'Diameter at the bottom')}
        {shape === 'cone' && number('top', 'Diameter at the top')}
        {(shape === 'cone' || shape === 'vertical cylinder') && number('tall', 'Height')}
        {shape !== '' && number('tapAbove', 'Lower tap above bottom')}
      </Box>
      {shape === 'strapping table' && (
        <>
          <TextField
            label="Level and volume, a pair a line"
            value={fields.straps}
            onChange={({ target }) => change({ straps: target.value })}
            multiline
            minRows={2}
            maxRows={8}
            error={fault?.field === 'straps'}
            helperText={fault?.field === 'straps' ? fault.message : undefined}
          />
          <FileText label="Table from a CSV" onText={(straps) => change({ straps: straps.trim() })} />
        </>
      )}
    </Stack>
  );
}
