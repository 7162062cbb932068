'use client';
import { ARRANGEMENTS, type ArrangementName } from '@barys/core/level';
import { unitLabel, unitsOf } from '@barys/core/units';
import type { Liquid } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { UnitField } from '@/ui/UnitField';
import { LiquidRow } from './LiquidRow';
import { deskFields, pair } from '../deskFields';
import type { Fault } from '../typed';
import { arrangementOf, asksFor, unitsOfFields, type LevelFields } from './fields';

const triple = { display: 'grid', gridTemplateColumns: '0.9fr 1.2fr 1.1fr', gap: 1 };

/** All that is asked of a level: the arrangement, heights, densities, the display, and what may differ one day. */
export function LevelForm({
  fields,
  change,
  fault,
  liquids,
}: {
  fields: LevelFields;
  change: (patch: Partial<LevelFields>) => void;
  fault: Fault | null;
  liquids: readonly Liquid[];
}) {
  const arrangement = arrangementOf(fields);
  const asks = asksFor(arrangement);
  const units = unitsOfFields(fields);
  const { number, choice } = deskFields(fields, change, fault);
  return (
    <Stack sx={{ gap: 1.25 }}>
      {choice(
        'arrangement',
        'Arrangement',
        (Object.keys(ARRANGEMENTS) as ArrangementName[]).map((name) => [name, ARRANGEMENTS[name].name]),
      )}
      <Box sx={triple}>
        {choice(
          'height',
          'Heights',
          unitsOf('length')
            .filter((unit) => unit !== 'um')
            .map((unit) => [unit, unitLabel(unit)]),
        )}
        {choice(
          'density',
          'Densities',
          unitsOf('density').map((unit) => [unit, unitLabel(unit)]),
        )}
        <UnitField
          label="Range in"
          unit={units.pressure}
          quantities={['pressure']}
          onUnit={(pressure) => change({ pressure })}
        />
      </Box>
      <LiquidRow fields={fields} change={change} liquids={liquids} />
      <Box sx={pair}>
        {number('zero', '0 % above tap')}
        {number('full', '100 % above tap')}
        {asks.taps && number('taps', 'Between the taps')}
        {asks.drop && number('drop', 'Transmitter below')}
        {number('liquid', asks.above === 'light liquid' ? 'Heavy liquid' : 'Liquid')}
        {asks.above !== null && number('above', asks.above === 'gas' ? 'Gas above' : 'Light liquid')}
        {asks.fill && number('fill', arrangement.includes('seal') ? 'Fill of capillary' : 'Fill of the leg')}
        {asks.line && number('line', 'In the line')}
        {asks.loss && number('loss', 'Loss of purge')}
        {asks.taps &&
          choice('high', 'High side on', [
            ['lower tap', 'the lower tap'],
            ['leg', 'the leg'],
          ])}
        {number('gravity', 'Gravity, m/s²')}
      </Box>
      <Box sx={triple}>
        {number('displayLow', 'At 0 %')}
        {number('displayHigh', 'At 100 %')}
        <TextField
          label="Display in"
          value={fields.displayUnit}
          onChange={({ target }) => change({ displayUnit: target.value })}
        />
        {number('level', 'Level')}
        {number('liquidNow', 'If liquid is')}
        {number('limit', 'Limit, %')}
      </Box>
    </Stack>
  );
}
