'use client';
import { CoreError } from '@barys/core/errors';
import { convert } from '@barys/core/units';
import type { Liquid } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { deskFields } from '../deskFields';
import { densityOfChosen } from './density';
import { unitsOfFields, type LevelFields } from './fields';

/** Takes the density of a liquid at a temperature into the field of the density. */
export function LiquidRow({
  fields,
  change,
  liquids,
}: {
  fields: LevelFields;
  change: (patch: Partial<LevelFields>) => void;
  liquids: readonly Liquid[];
}) {
  const [wrong, setWrong] = useState<string | null>(null);
  const { number, choice } = deskFields(fields, change, null);
  const take = () => {
    try {
      const density = densityOfChosen(fields, liquids);
      setWrong(null);
      if (density !== null)
        change({
          liquid: String(Number(convert(density, 'kgPerM3', unitsOfFields(fields).density).toPrecision(6))),
        });
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      setWrong(error.message);
    }
  };
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1.4fr 0.8fr auto', gap: 1, alignItems: 'start' }}>
        {choice('liquidId', 'Density of', [
          ['typed', 'as typed'],
          ['water', 'water'],
          ...liquids.map(({ id, name }) => [String(id), name] as const),
        ])}
        {number('temperature', 'At, °C')}
        <Button
          variant="outlined"
          onClick={take}
          disabled={fields.liquidId === 'typed'}
          sx={{ minHeight: 44 }}
        >
          Take
        </Button>
      </Box>
      {wrong !== null && (
        <Typography variant="body2" role="alert" sx={{ color: 'var(--outside)' }}>
          {wrong}
        </Typography>
      )}
    </>
  );
}
