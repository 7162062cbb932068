'use client';
import { unitLabel, unitsOf } from '@barys/core/units';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import { UnitField } from '@/ui/UnitField';
import { deskFields, pair, Part } from '../deskFields';
import type { Fault } from '../typed';
import { unitsOfDrum, type DrumFields } from './fields';

const triple = { display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1 };

/** What is asked of a drum: its taps, what the range is made for, and how it is now. */
export function DrumForm({
  fields,
  change,
  fault,
}: {
  fields: DrumFields;
  change: (patch: Partial<DrumFields>) => void;
  fault: Fault | null;
}) {
  const units = unitsOfDrum(fields);
  const { number, choice } = deskFields(fields, change, fault);
  return (
    <Stack sx={{ gap: 1.25 }}>
      <Box sx={triple}>
        {choice(
          'height',
          'Heights',
          unitsOf('length')
            .filter((unit) => unit !== 'um')
            .map((unit) => [unit, unitLabel(unit)]),
        )}
        <UnitField
          label="Drum in"
          unit={units.steam}
          quantities={['pressure']}
          onUnit={(steam) => change({ steam })}
        />
        <UnitField
          label="Range in"
          unit={units.range}
          quantities={['pressure']}
          onUnit={(range) => change({ range })}
        />
      </Box>
      <Box sx={pair}>
        {number('taps', 'Between the taps')}
        {number('drop', 'Transmitter below')}
        {number('zero', '0 % above tap')}
        {number('full', '100 % above tap')}
        {choice('high', 'High side on', [
          ['lower tap', 'the lower tap'],
          ['leg', 'the leg'],
        ])}
        {number('gravity', 'Gravity, m/s²')}
      </Box>
      <Part>The range is made for</Part>
      <Box sx={pair}>
        {number('pressure', `Drum, ${unitLabel(units.steam)}`)}
        {number('leg', 'Leg, °C')}
        {choice('kind', 'Pressures are', [
          ['gauge', 'gauge'],
          ['absolute', 'absolute'],
        ])}
        {fields.kind !== 'absolute' && number('barometer', 'Barometer, hPa')}
      </Box>
      <Part>Hot check: read at the same time</Part>
      <Box sx={pair}>
        {number('nowPressure', `Drum, ${unitLabel(units.steam)}`)}
        {number('nowLeg', 'Leg, °C')}
        {number('glass', 'Glass shows, %')}
        {number('shown', 'Transmitter, %')}
        {number('glassTemperature', 'Water in glass, °C')}
      </Box>
    </Stack>
  );
}
