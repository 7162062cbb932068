'use client';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { memo } from 'react';
import { Controller, useWatch, type Control, type UseFormRegister } from 'react-hook-form';
import { DISTRIBUTIONS, type BudgetFields, type DistributionKind } from './fields';

/** Degrees of freedom that the distribution brings with it. */
const NU_PLACEHOLDER: Partial<Record<DistributionKind, string>> = { 'type-a': 'n − 1', pooled: 'given' };

/** One input of the budget: name, estimate, unit, distribution with its figures, degrees of freedom. */
export const InputRow = memo(function InputRow({
  place,
  control,
  register,
  wrong,
  remove,
}: {
  place: number;
  control: Control<BudgetFields>;
  register: UseFormRegister<BudgetFields>;
  /** What is wrong with this input. */
  wrong: string | null;
  remove: (place: number) => void;
}) {
  const kind = useWatch({ control, name: `inputs.${place}.kind` });
  const name = useWatch({ control, name: `inputs.${place}.name` });
  const of = (label: string) => ({
    'aria-label': `${label} of ${name === '' ? `input ${place + 1}` : name}`,
  });
  return (
    <Box component="li" sx={{ borderTop: '1px solid var(--rule)', pt: 1, pb: 0.75 }}>
      <Box
        sx={{
          display: 'grid',
          gap: 0.75,
          alignItems: 'start',
          gridTemplateColumns: { xs: '1fr 1fr 44px', sm: '0.8fr 1fr 0.7fr 1.6fr 1.8fr 0.6fr 44px' },
        }}
      >
        <TextField label="Name" {...register(`inputs.${place}.name`)} />
        <TextField
          label="Estimate"
          disabled={kind === 'type-a'}
          placeholder={kind === 'type-a' ? 'mean' : ''}
          slotProps={{
            htmlInput: { inputMode: 'decimal', ...of('Estimate') },
            ...(kind === 'type-a' ? { inputLabel: { shrink: true } } : {}),
          }}
          {...register(`inputs.${place}.estimate`)}
        />
        <TextField label="Unit" slotProps={{ htmlInput: of('Unit') }} {...register(`inputs.${place}.unit`)} />
        <Controller
          control={control}
          name={`inputs.${place}.kind`}
          render={({ field }) => (
            <TextField select label="Known by" {...field}>
              {(Object.keys(DISTRIBUTIONS) as DistributionKind[]).map((one) => (
                <MenuItem key={one} value={one}>
                  {DISTRIBUTIONS[one].word}
                </MenuItem>
              ))}
            </TextField>
          )}
        />
        <Figures place={place} kind={kind} register={register} />
        <TextField
          label="ν"
          placeholder={NU_PLACEHOLDER[kind] ?? '∞'}
          slotProps={{
            htmlInput: { inputMode: 'decimal', ...of('Degrees of freedom') },
            inputLabel: { shrink: true },
          }}
          {...register(`inputs.${place}.degreesOfFreedom`)}
        />
        <RemoveButton what={name === '' ? `input ${place + 1}` : name} onRemove={() => remove(place)} />
      </Box>
      {wrong !== null && (
        <Typography role="alert" variant="body2" sx={{ color: 'var(--outside)', fontWeight: 600, mt: 0.5 }}>
          {wrong}
        </Typography>
      )}
    </Box>
  );
});

/** The figures that the distribution asks for. */
function Figures({
  place,
  kind,
  register,
}: {
  place: number;
  kind: DistributionKind;
  register: UseFormRegister<BudgetFields>;
}) {
  const { labels } = DISTRIBUTIONS[kind];
  return (
    <Box
      sx={{ display: 'grid', gap: 0.75, gridTemplateColumns: `repeat(${Math.min(labels.length, 4)}, 1fr)` }}
    >
      {labels.map((label, figure) => (
        <TextField
          key={`${kind} ${label}`}
          label={label}
          slotProps={kind === 'type-a' ? {} : { htmlInput: { inputMode: 'decimal' } }}
          {...register(`inputs.${place}.figures.${figure}`)}
        />
      ))}
    </Box>
  );
}

function RemoveButton({ what, onRemove }: { what: string; onRemove: () => void }) {
  return (
    <IconButton
      aria-label={`Remove ${what}`}
      onClick={onRemove}
      sx={{
        width: 44,
        height: 44,
        gridColumn: { xs: 3, sm: 'auto' },
        gridRow: { xs: '1 / span 3', sm: 'auto' },
      }}
    >
      <DeleteOutlined fontSize="small" />
    </IconButton>
  );
}
