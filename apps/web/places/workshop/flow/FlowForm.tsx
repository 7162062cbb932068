'use client';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import { UnitField } from '@/ui/UnitField';
import { deskFields, pair, Part } from '../deskFields';
import type { Fault } from '../typed';
import { gasUnitOf, unitOf, type FlowFields } from './fields';

/** What is asked of a flow: its primary element, the low-flow part, zero, gas, totaliser and noise. */
export function FlowForm({
  fields,
  change,
  fault,
}: {
  fields: FlowFields;
  change: (patch: Partial<FlowFields>) => void;
  fault: Fault | null;
}) {
  const { number, choice } = deskFields(fields, change, fault);
  return (
    <Stack sx={{ gap: 1.25 }}>
      <Part>Full scale, by its data sheet</Part>
      <Box sx={pair}>
        {number('differentialMax', 'Differential')}
        <UnitField
          label="in"
          unit={unitOf(fields)}
          quantities={['pressure']}
          onUnit={(unit) => change({ unit })}
        />
        {number('flowMax', 'Flow')}
        <TextField
          label="in unit"
          value={fields.flowUnit}
          onChange={({ target }) => change({ flowUnit: target.value.slice(0, 20) })}
          autoComplete="off"
        />
      </Box>
      <Part>Low end, per cent of flow</Part>
      <Box sx={pair}>
        {number('cutOff', 'Cut below, %')}
        {number('linearTo', 'Linear up to, %')}
        {number('step', 'Table step, %')}
        {choice('evenIn', 'Even in', [
          ['flow', 'flow'],
          ['differential', 'differential'],
        ])}
      </Box>
      <Part>Zero and position</Part>
      <Box sx={pair}>
        {number('zero', 'Too much by')}
        {number('tilt', 'Tilted by, °')}
        {number('distance', 'Diaphragms, mm')}
        {number('fill', 'Fill, kg/m³')}
      </Box>
      <Part>A gas</Part>
      <Box sx={pair}>
        <UnitField
          label="Pressures in"
          unit={gasUnitOf(fields)}
          quantities={['pressure']}
          onUnit={(pressureUnit) => change({ pressureUnit })}
        />
        {choice('kind', 'Pressures are', [
          ['gauge', 'gauge'],
          ['absolute', 'absolute'],
        ])}
        {number('pressure', 'Pressure')}
        {number('temperature', 'Temperature, °C')}
        {number('designPressure', 'Designed for')}
        {number('designTemperature', 'Designed, °C')}
        {fields.kind !== 'absolute' && number('barometer', 'Barometer, hPa')}
        {number('indicated', 'Flow shown')}
      </Box>
      <Part>Totaliser, noise and damping</Part>
      <Box sx={pair}>
        {number('counts', 'Counts')}
        {number('at', 'At a flow of, %')}
        {number('noise', 'Noise, % of dp')}
        {number('noiseTime', 'Noise time, s')}
        {number('damping', 'Damping, s')}
        {number('seed', 'Seed')}
      </Box>
    </Stack>
  );
}
