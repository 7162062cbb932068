'use client';
import type { Channel } from '@barys/core/port';
import type { ShownBench } from '@barys/store/benches';
import { tapsOfRun } from '@barys/store/beside';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import type { ShownRun } from '../types';
import { startAutomaticAction } from './actions';

/** Those of a bench that have a channel; the reference that the job names comes first. */
function devicesWith(bench: ShownBench | undefined, channel: Channel, tag?: string): string[] {
  const devices = (bench?.values ?? []).filter((one) => one.channel === channel).map(({ device }) => device);
  return [...devices.filter((one) => one === tag), ...devices.filter((one) => one !== tag)];
}

const WHO = [
  ['controller', 'the controller'],
  ['person', 'a person, at the pump'],
] as const;
const DEVICES = [
  ['reference', 'Pressure'],
  ['output', 'Output'],
  ['digital', 'Digital value'],
] as const;

/** What there is to choose from at a bench for each part in a run. */
const devicesFor = ({ madeWith }: ShownRun, bench: ShownBench | undefined) => ({
  reference: devicesWith(bench, 'pressure', madeWith.pressureReference.tag),
  output: devicesWith(bench, 'current', madeWith.meter?.tag),
  digital: madeWith.columns.includes('digital') ? devicesWith(bench, 'digital value') : [],
});

/** What can read a tap: whatever reads its unit first, then anything else that shows something. */
const TAP_CHANNELS = ['voltage', 'display', 'current'] as const;
type TapReader = readonly [value: string, words: string];

/** The taps of a run, each with what a bench has to read it. */
const tapsFor = ({ madeWith }: ShownRun, bench: ShownBench | undefined) =>
  tapsOfRun(madeWith).map(({ column, name, unit }) => {
    const first = unit === 'V' ? 'voltage' : unit === 'mA' ? 'current' : 'display';
    const readers = [first, ...TAP_CHANNELS.filter((channel) => channel !== first)].flatMap((channel) =>
      devicesWith(bench, channel as Channel).map((device): TapReader => [
        JSON.stringify({ device, channel }),
        `${device}, ${channel}`,
      ]),
    );
    return { column, name, readers };
  });

const CAUTION =
  'The controller goes to each point from its own side, waits until pressure and output stand, and reads. It is under pressure by itself: keep clear of the connection, and have the vent within reach. Its readings are kept in your name.';

const ABOUT_PERSON =
  'Reference and output are seen live while you work the pump. Enter takes both as soon as they stand; what was applied is read as it was. Readings are kept in your name.';

/** What a bench lacks for a run; null where it lacks nothing. */
function lackOf(bench: ShownBench | undefined, devices: ReturnType<typeof devicesFor>): string | null {
  if (bench === undefined) return 'No bench is there: nothing is heard of a link.';
  return devices.reference.length === 0 || devices.output.length === 0
    ? `${bench.name} has no controller, or nothing that reads a current.`
    : null;
}

/** Which instruments of a bench a run goes by itself with; what there is one of is chosen. */
export function StartForm({
  run,
  benches,
  whyNot,
  onStarted,
}: {
  run: ShownRun;
  benches: readonly ShownBench[];
  whyNot: string | null;
  onStarted: () => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const [chosen, choose] = useState<Readonly<Record<string, string>>>({});
  const there = benches.filter(({ isThere }) => isThere);
  const bench = there.find(({ id }) => String(id) === chosen['bench']) ?? there[0];
  const devices = devicesFor(run, bench);
  const taps = tapsFor(run, bench);
  const deviceOf = (name: keyof typeof devices) => chosen[name] ?? devices[name][0];
  const start = useSubmit(async () => {
    const answer = await startAutomaticAction({
      run: run.id,
      bench: bench?.id ?? 0,
      reference: deviceOf('reference') ?? '',
      output: deviceOf('output') ?? '',
      digital: deviceOf('digital') ?? null,
      taps: Object.fromEntries(
        taps.flatMap(({ column, readers }) => {
          const reader = chosen[column] ?? readers[0]?.[0];
          return reader === undefined
            ? []
            : [[column, JSON.parse(reader) as { device: string; channel: Channel }]];
        }),
      ),
      isByHand: chosen['who'] === 'person',
    });
    onStarted();
    if (answer.error === null) window.scrollTo({ top: 0 });
    return answer;
  });
  if (!isOpen)
    return (
      <Box sx={{ mb: 1 }}>
        <Button onClick={() => setOpen(true)} sx={{ minHeight: 44 }}>
          Run it at a bench
        </Button>
      </Box>
    );
  const trouble = whyNot ?? lackOf(bench, devices);
  return (
    <Sheet title="Run it at a bench" sx={{ my: 1.5 }}>
      {trouble === null ? (
        <Box
          component="form"
          {...start.form(() => undefined)}
          sx={{ display: 'flex', gap: 1.5, flexWrap: 'wrap', alignItems: 'center' }}
        >
          <Choices there={there} devices={devices} taps={taps} chosen={chosen} choose={choose} />
          <Button type="submit" variant="contained" aria-busy={start.isPending} sx={{ minHeight: 44 }}>
            Run it
          </Button>
        </Box>
      ) : (
        <Typography>{trouble}</Typography>
      )}
      <Refused answer={start.answer} />
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        {chosen['who'] === 'person' ? ABOUT_PERSON : CAUTION}
      </Typography>
    </Sheet>
  );
}

/** Which bench, who works the pressure, and which instruments. */
function Choices({
  there,
  devices,
  taps,
  chosen,
  choose,
}: {
  there: readonly ShownBench[];
  devices: ReturnType<typeof devicesFor>;
  taps: ReturnType<typeof tapsFor>;
  chosen: Readonly<Record<string, string>>;
  choose: (chosen: Readonly<Record<string, string>>) => void;
}) {
  return (
    <>
      <Choice
        label="Bench"
        name="bench"
        of={there.map(({ id, name }) => [String(id), name])}
        chosen={chosen}
        choose={choose}
      />
      <Choice label="Pressure is worked by" name="who" of={WHO} chosen={chosen} choose={choose} />
      {DEVICES.map(
        ([name, label]) =>
          devices[name].length > 0 && (
            <Choice
              key={name}
              label={label}
              name={name}
              of={devices[name].map((one) => [one, one])}
              chosen={chosen}
              choose={choose}
            />
          ),
      )}
      {taps.map(
        ({ column, name, readers }) =>
          readers.length > 0 && (
            <Choice key={column} label={name} name={column} of={readers} chosen={chosen} choose={choose} />
          ),
      )}
    </>
  );
}

function Choice({
  label,
  name,
  of,
  chosen,
  choose,
}: {
  label: string;
  name: string;
  of: readonly (readonly [value: string, words: string])[];
  chosen: Readonly<Record<string, string>>;
  choose: (chosen: Readonly<Record<string, string>>) => void;
}) {
  return (
    <TextField
      select
      label={label}
      value={chosen[name] ?? of[0]?.[0] ?? ''}
      // Another bench has other instruments.
      onChange={({ target }) => choose({ ...(name === 'bench' ? {} : chosen), [name]: target.value })}
      sx={{ minWidth: 150 }}
    >
      {of.map(([value, words]) => (
        <MenuItem key={value} value={value} sx={{ minHeight: 44 }}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  );
}
