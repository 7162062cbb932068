'use client';
import type { Setup } from '@barys/core/setup';
import type { SignalRange } from '@barys/core/signal';
import { convertPressure, unitLabel } from '@barys/core/units';
import type { Configuration } from '@barys/store/registers';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { Sheet } from '@/ui/Sheet';
import type { SetupFields } from './fields';
import { RangeStave } from '@/ui/range/RangeStave';

/** The range that has to be set above the one that was read, in one unit; what was not read is as it has to be. */
export function RangeBeside({
  configuration,
  read,
  change,
}: {
  configuration: Configuration;
  read: Setup | null;
  change: (patch: Partial<SetupFields>) => void;
}) {
  const { inputUnit } = configuration;
  const unit = read?.inputUnit ?? inputUnit;
  const end = (value: number | null | undefined, must: number) =>
    value == null ? must : convertPressure(value, unit, inputUnit);
  const found: SignalRange = {
    ...configuration,
    lrv: end(read?.lrv, configuration.lrv),
    urv: end(read?.urv, configuration.urv),
    transferFunction: read?.transferFunction ?? configuration.transferFunction,
  };
  const move = (which: 'low' | 'high', value: number) => {
    const text = String(Number(convertPressure(value, inputUnit, unit).toPrecision(6)));
    change(which === 'low' ? { lrv: text } : { urv: text });
  };
  const staves = [
    ['Has to be', configuration, configuration.displayLow, configuration.displayHigh],
    [
      'Read',
      found,
      read?.displayLow ?? configuration.displayLow,
      read?.displayHigh ?? configuration.displayHigh,
    ],
  ] as const;
  return (
    <Sheet title="Range, as it has to be and as read">
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' }, gap: 3 }}>
        {staves.map(([name, range, low, high]) => (
          <div key={name}>
            <Typography component="h3" variant="h3">
              {name}
            </Typography>
            {range.lrv === range.urv || low === high || !Number.isFinite(range.urv - range.lrv) ? (
              <Typography>It has no span.</Typography>
            ) : (
              <RangeStave
                range={range}
                display={{ low, high }}
                units={{
                  input: unitLabel(inputUnit),
                  output: configuration.outputUnit,
                  display: configuration.displayUnit,
                }}
                marker={null}
                onMove={range === found ? move : undefined}
              />
            )}
          </div>
        ))}
      </Box>
    </Sheet>
  );
}
