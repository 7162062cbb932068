import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { NumberField } from '@/ui/NumberField';
import { Sheet } from '@/ui/Sheet';
import type { Fault, Fields } from './typed';

/** Two fields beside each other. */
export const pair = { display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 };

/** The heading of a part of a form. */
export const Part = ({ children }: { children: string }) => (
  <Typography component="h3" variant="h3" sx={{ mt: 0.5 }}>
    {children}
  </Typography>
);

/** The fields of a tool: a number, and a choice, each by its name. */
export function deskFields<F extends Fields>(
  fields: F,
  change: (patch: Partial<F>) => void,
  fault: Fault | null,
) {
  type Name = keyof F & string;
  const set = (name: Name, text: string) => change({ [name]: text } as Partial<F>);
  return {
    number: (name: Name, label: string) => (
      <NumberField
        label={label}
        text={fields[name] ?? ''}
        onText={(text) => set(name, text)}
        error={fault?.field === name ? fault.message : null}
      />
    ),
    choice: (name: Name, label: string, options: readonly (readonly [value: string, words: string])[]) => (
      <TextField
        select
        label={label}
        value={options.some(([value]) => value === fields[name]) ? fields[name] : ''}
        onChange={({ target }) => set(name, target.value)}
      >
        {options.map(([value, words]) => (
          <MenuItem key={value} value={value} sx={{ minHeight: 44 }}>
            {words}
          </MenuItem>
        ))}
      </TextField>
    ),
  };
}

/** In place of what cannot be worked out: why, and that nothing typed is lost. */
export function Unworkable({ title, message }: { title: string; message: string }) {
  return (
    <Sheet title={title}>
      <Typography role="alert" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
        {message}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        What you typed is still there. Put this right and the figures come back.
      </Typography>
    </Sheet>
  );
}
