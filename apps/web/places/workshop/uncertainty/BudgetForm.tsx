'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { memo } from 'react';
import {
  Controller,
  useFieldArray,
  useWatch,
  type UseFieldArrayReturn,
  type UseFormReturn,
} from 'react-hook-form';
import { Sheet } from '@/ui/Sheet';
import { EXAMPLES } from './examples';
import type { BudgetFields, InputFields } from './fields';
import { InputRow } from './InputRow';

const EMPTY_INPUT: InputFields = {
  name: '',
  estimate: '0',
  unit: '',
  kind: 'rectangular',
  figures: [''],
  degreesOfFreedom: '',
};

/** What is wrong, and at which field of the form. */
export interface Wrong {
  readonly field: string;
  readonly message: string;
}

/** Drawn again when something else is wrong, and not with every key: its fields keep their own texts. */
export const BudgetForm = memo(function BudgetForm({
  form,
  wrong,
}: {
  form: UseFormReturn<BudgetFields>;
  wrong: Wrong | null;
}) {
  const { control, register } = form;
  const inputs = useFieldArray({ control, name: 'inputs' });
  const correlations = useFieldArray({ control, name: 'correlations' });
  const at = (field: string) => (wrong?.field === field ? wrong.message : null);
  const inRow = (field: string) =>
    wrong !== null && `${wrong.field}.`.startsWith(`${field}.`) ? wrong.message : null;
  const text = (name: 'model' | 'unit' | 'probability' | 'lower' | 'upper', label: string) => (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <TextField
          label={label}
          {...field}
          error={at(name) !== null}
          helperText={at(name)}
          autoComplete="off"
        />
      )}
    />
  );
  return (
    <Sheet title="Budget">
      <Stack sx={{ gap: 1.25 }}>
        <TextField
          select
          label="Begin with"
          value=""
          onChange={(event) => form.reset(EXAMPLES[Number(event.target.value)])}
        >
          {EXAMPLES.map(({ title }, index) => (
            <MenuItem key={title} value={index}>
              {title}
            </MenuItem>
          ))}
        </TextField>
        <Box sx={{ display: 'grid', gap: 1, gridTemplateColumns: { xs: '1fr', sm: '3.4fr 1fr' } }}>
          {text('model', 'Model: the result as a formula of the inputs')}
          {text('unit', 'Result in')}
        </Box>
        <Box component="ol" aria-label="Inputs" sx={{ m: 0, p: 0, listStyle: 'none' }}>
          {inputs.fields.map(({ id }, place) => (
            <InputRow
              key={id}
              place={place}
              control={control}
              register={register}
              wrong={inRow(`inputs.${place}`)}
              remove={inputs.remove}
            />
          ))}
        </Box>
        {/* The core names a whole list where it cannot name one input. */}
        <Problem of={at('inputs')} />
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
          <Button variant="outlined" onClick={() => inputs.append(EMPTY_INPUT)}>
            Add an input
          </Button>
          <Button onClick={() => correlations.append({ a: '', b: '', r: '' })}>Add a correlation</Button>
        </Stack>
        <Correlations form={form} list={correlations} />
        <Problem of={at('correlations')} />
        <Box sx={{ display: 'grid', gap: 1, gridTemplateColumns: '1fr 1fr 1fr' }}>
          {text('probability', 'Coverage, %')}
          {text('lower', 'Lower limit')}
          {text('upper', 'Upper limit')}
        </Box>
      </Stack>
    </Sheet>
  );
});

/** Which inputs go together, and how far. */
function Correlations({
  form: { control, register },
  list,
}: {
  form: UseFormReturn<BudgetFields>;
  list: UseFieldArrayReturn<BudgetFields, 'correlations'>;
}) {
  const inputs = useWatch({ control, name: 'inputs' });
  const names = [...new Set(inputs.map(({ name }) => name.trim()))].filter((name) => name !== '');
  return (
    <>
      {list.fields.map(({ id }, place) => (
        <Box key={id} sx={{ display: 'grid', gap: 1, gridTemplateColumns: '1fr 1fr 1fr auto' }}>
          {(['a', 'b'] as const).map((side) => (
            <Controller
              key={side}
              control={control}
              name={`correlations.${place}.${side}`}
              render={({ field }) => (
                <TextField select label={side === 'a' ? 'Input' : 'With input'} {...field}>
                  {names.map((name) => (
                    <MenuItem key={name} value={name}>
                      {name}
                    </MenuItem>
                  ))}
                </TextField>
              )}
            />
          ))}
          <TextField label="r, −1 to 1" {...register(`correlations.${place}.r`)} />
          <Button onClick={() => list.remove(place)}>Remove</Button>
        </Box>
      ))}
    </>
  );
}

function Problem({ of: words }: { of: string | null }) {
  if (words === null) return null;
  return (
    <Typography role="alert" variant="body2" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
      {words}
    </Typography>
  );
}
