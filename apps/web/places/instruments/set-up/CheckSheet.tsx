import type { Step } from '@barys/core/working';
import type { CheckResult } from '@barys/store/shapes';
import Box from '@mui/material/Box';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { NumberField } from '@/ui/NumberField';
import { Sheet } from '@/ui/Sheet';
import { Working } from '@/ui/Working';
import type { SetupFields } from './fields';

type Name = keyof SetupFields;

const GROUPS: readonly (readonly [title: string, fields: readonly (readonly [Name, string])[]])[] = [
  [
    'Output at rest, nothing applied',
    [
      ['restMilliamp', 'Output, mA'],
      ['saturationMilliamp', 'Low saturation, mA'],
    ],
  ],
  [
    'Position',
    [
      ['tiltDegrees', 'Tilt since the zero trim, °'],
      ['distanceMm', 'Between the diaphragms, mm'],
      ['fillDensity', 'Density of the fill, kg/m³'],
    ],
  ],
  [
    'Terminal voltage',
    [
      ['terminalV', 'Measured, V'],
      ['terminalMilliamp', 'At, mA'],
      ['loopOhm', 'Rest of the loop, Ω'],
      ['leastTerminalV', 'Needed at least, V'],
    ],
  ],
  [
    'Temperature',
    [
      ['sensorC', 'Sensor, °C'],
      ['electronicsC', 'Electronics, °C'],
      ['coldestC', 'Allowed from, °C'],
      ['hottestC', 'To, °C'],
    ],
  ],
];

/** The checks that belong to a set-up; what stands there at first is usual, and the data sheet comes first. */
export function CheckSheet({
  fields,
  change,
  results,
  stepsOf,
  fault,
}: {
  fields: SetupFields;
  change: (patch: Partial<SetupFields>) => void;
  results: readonly CheckResult[];
  stepsOf: StepsOf;
  fault: { readonly message: string; readonly field: string | null } | null;
}) {
  return (
    <Sheet
      title="Checks at the instrument"
      aside="limits: common practice, unless its data sheet says otherwise"
    >
      <Box
        sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' }, columnGap: 3, rowGap: 2 }}
      >
        {GROUPS.map(([title, of]) => (
          <div key={title}>
            <Typography component="h3" variant="h3" sx={{ mb: 1 }}>
              {title}
            </Typography>
            <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1 }}>
              {of.map(([name, label]) => (
                <NumberField
                  key={name}
                  label={label}
                  text={fields[name]}
                  onText={(text) => change({ [name]: text })}
                  error={fault?.field === name ? fault.message : null}
                />
              ))}
            </Box>
          </div>
        ))}
      </Box>
      <CheckWords results={results} stepsOf={stepsOf} />
    </Sheet>
  );
}

type StepsOf = (name: string) => readonly Step[];
const NO_STEPS: StepsOf = () => [];

/** Checks that were judged, each in words, with the steps to its figure where it has one. */
export function CheckWords({
  results,
  stepsOf = NO_STEPS,
}: {
  results: readonly CheckResult[];
  stepsOf?: StepsOf;
}) {
  if (results.length === 0) return null;
  return (
    <Stack component="ul" sx={{ m: 0, mt: 1.5, pl: 2.5, gap: 0.5 }}>
      {results.map(({ name, isGood, words }) => {
        const steps = stepsOf(name);
        return (
          <li key={name}>
            <Typography variant="body2">
              <Box
                component="span"
                sx={{ fontWeight: 600, color: isGood ? 'var(--within)' : 'var(--outside)' }}
              >
                {name}, {isGood ? 'good' : 'not good'}:
              </Box>{' '}
              {words}
            </Typography>
            {steps.length > 0 && <Working of={name} steps={steps} />}
          </li>
        );
      })}
    </Stack>
  );
}
