'use client';
/** The pages of an invented hand-held communicator, in words and not by numbers of parameters. */
import { START_VIEWS, transferWords, type StartView } from '@barys/core/setup';
import { formatPlain } from '@barys/core/text';
import { PRESSURE_UNITS } from '@barys/core/units';
import type { Act, Command, PracticeBench } from '@barys/rig/practice';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Columns } from '@/ui/Columns';
import { Facts } from '@/ui/Facts';
import { Sheet } from '@/ui/Sheet';
import { useDeskText } from '../useDeskText';
import { NumberAct } from './NumberAct';

const PAGES = ['Now', 'Range', 'Output', 'Display', 'Trims', 'Loop'] as const;
type PageName = (typeof PAGES)[number];

type Menued = NonNullable<PracticeBench['menued']>;
interface PageProps {
  menued: Menued;
  unit: string;
  tell: (command: Command) => void;
}

const plain = (value: number): string => formatPlain(Number(value.toPrecision(6)));

function Choice<T extends string>({
  label,
  value,
  options,
  onChoose,
}: {
  label: string;
  value: T;
  options: readonly T[];
  onChoose: (option: T) => void;
}) {
  return (
    <TextField
      select
      label={label}
      value={value}
      onChange={({ target }) => {
        const option = options.find((one) => one === target.value);
        if (option !== undefined) onChoose(option);
      }}
      fullWidth
    >
      {options.map((one) => (
        <MenuItem key={one} value={one}>
          {one}
        </MenuItem>
      ))}
    </TextField>
  );
}

function NowPage({ menued: { settings, face }, unit }: PageProps) {
  return (
    <Facts
      facts={[
        ['Range', `${plain(settings.lrv)} to ${plain(settings.urv)} ${unit}`],
        ['Output', `${transferWords(settings.transfer)}, driven by the ${settings.drivenBy}`],
        ['Scaled variable', transferWords(settings.scaledTransfer)],
        ['Damping', `output ${plain(settings.dampingS)} s, display ${plain(settings.displayDampingS)} s`],
        [
          'Display',
          `${plain(settings.displayLow)} to ${plain(settings.displayHigh)} ${face.displayUnit}, begins with ${face.startView}`,
        ],
      ]}
    />
  );
}

function RangePage({ unit, tell }: PageProps) {
  return (
    <Columns columns="1fr 1fr" from="sm">
      <NumberAct
        label={`Lower range value, ${unit}`}
        word="Set lower"
        onGive={(lrv) => tell({ kind: 'set', settings: { lrv } })}
      />
      <NumberAct
        label={`Upper range value, ${unit}`}
        word="Set upper"
        onGive={(urv) => tell({ kind: 'set', settings: { urv } })}
      />
    </Columns>
  );
}

const SHAPES = ['linear', 'root', 'root, zero below a start'] as const;
const shapeOf = ({ kind }: Menued['settings']['transfer']): (typeof SHAPES)[number] =>
  kind === 'linear' ? 'linear' : kind === 'square-root-cut-off' ? 'root, zero below a start' : 'root';
/** Where a root starts that is chosen and not yet given its start, per cent of flow. */
const USUAL_START = 5;

function OutputPage({ menued: { settings }, tell }: PageProps) {
  const transferOf = (shape: (typeof SHAPES)[number], cutOffPercentOfFlow = USUAL_START) =>
    shape === 'linear'
      ? { kind: 'linear' as const }
      : shape === 'root'
        ? { kind: 'square-root' as const }
        : { kind: 'square-root-cut-off' as const, cutOffPercentOfFlow };
  return (
    <Columns columns="1fr 1fr" from="sm">
      <Choice
        label="Output goes"
        value={shapeOf(settings.transfer)}
        options={SHAPES}
        onChoose={(shape) => tell({ kind: 'set', settings: { transfer: transferOf(shape) } })}
      />
      <NumberAct
        label="Start, % of flow"
        word="Set start"
        onGive={(start) =>
          tell({ kind: 'set', settings: { transfer: transferOf('root, zero below a start', start) } })
        }
      />
      <Choice
        label="Driven by"
        value={settings.drivenBy}
        options={['pressure', 'scaled variable'] as const}
        onChoose={(drivenBy) => tell({ kind: 'set', settings: { drivenBy } })}
      />
      <Choice
        label="Scaled variable goes"
        value={settings.scaledTransfer.kind === 'linear' ? 'linear' : 'root'}
        options={['linear', 'root'] as const}
        onChoose={(shape) => tell({ kind: 'set', settings: { scaledTransfer: transferOf(shape) } })}
      />
      <NumberAct
        label="Damping of the output, s"
        word="Set damping"
        onGive={(dampingS) => tell({ kind: 'set', settings: { dampingS } })}
      />
    </Columns>
  );
}

function DisplayPage({ menued: { face, units }, tell }: PageProps) {
  return (
    <Columns columns="1fr 1fr" from="sm">
      <NumberAct
        label="Display at 0 %"
        word="Set low"
        onGive={(displayLow) => tell({ kind: 'set', settings: { displayLow } })}
      />
      <NumberAct
        label="Display at 100 %"
        word="Set high"
        onGive={(displayHigh) => tell({ kind: 'set', settings: { displayHigh } })}
      />
      <Choice
        label="Display unit"
        value={face.displayUnit}
        options={units}
        onChoose={(displayUnit) => tell({ kind: 'face', face: { displayUnit } })}
      />
      <Choice<StartView>
        label="Start view"
        value={face.startView}
        options={START_VIEWS}
        onChoose={(startView) => tell({ kind: 'face', face: { startView } })}
      />
      <NumberAct
        label="Damping of the display, s"
        word="Set display damping"
        onGive={(displayDampingS) => tell({ kind: 'set', settings: { displayDampingS } })}
      />
    </Columns>
  );
}

function TrimPage({ unit, tell }: PageProps) {
  return (
    <Columns columns="1fr 1fr" from="sm">
      <Button variant="outlined" onClick={() => tell({ kind: 'zero trim' })} sx={{ minHeight: 44 }}>
        Zero trim
      </Button>
      <NumberAct
        label={`Applied at the lower end, ${unit}`}
        word="Trim lower"
        onGive={(applied) => tell({ kind: 'sensor trim', end: 'lower', applied })}
      />
      <NumberAct
        label={`Applied at the upper end, ${unit}`}
        word="Trim upper"
        onGive={(applied) => tell({ kind: 'sensor trim', end: 'upper', applied })}
      />
      <NumberAct
        label="Measured at 4 mA, mA"
        word="Trim 4 mA"
        onGive={(measured) => tell({ kind: 'output trim', at: 4, measured })}
      />
      <NumberAct
        label="Measured at 20 mA, mA"
        word="Trim 20 mA"
        onGive={(measured) => tell({ kind: 'output trim', at: 20, measured })}
      />
    </Columns>
  );
}

function LoopPage({ tell }: PageProps) {
  return (
    <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
      {([4, 12, 20] as const).map((milliamp) => (
        <Button key={milliamp} variant="outlined" onClick={() => tell({ kind: 'hold', milliamp })}>
          Hold {milliamp} mA
        </Button>
      ))}
      <Button variant="outlined" onClick={() => tell({ kind: 'hold', milliamp: null })}>
        Let the loop go
      </Button>
    </Stack>
  );
}

const PAGE = {
  Now: NowPage,
  Range: RangePage,
  Output: OutputPage,
  Display: DisplayPage,
  Trims: TrimPage,
  Loop: LoopPage,
};

export function Communicator({ bench, onDo }: { bench: PracticeBench; onDo: (act: Act) => string | null }) {
  const [open, setPage] = useDeskText('communicator', 'Now');
  const page = PAGES.find((name) => name === open) ?? 'Now';
  const [answer, setAnswer] = useState('');
  const { menued } = bench;
  if (menued === null) return null;
  const tell = (command: Command) => setAnswer(onDo({ do: 'tell', command }) ?? 'done');
  const Shown = PAGE[page];
  return (
    <Sheet
      title="Communicator"
      aside={<span role="status">{answer === '' || answer === 'done' ? answer : `refused: ${answer}`}</span>}
    >
      <Tabs
        value={page}
        onChange={(_event, next: PageName) => {
          setPage(next);
          setAnswer('');
        }}
        variant="scrollable"
        aria-label="Pages of the communicator"
        sx={{ mb: 1.5 }}
      >
        {PAGES.map((name) => (
          <Tab key={name} value={name} label={name} sx={{ minWidth: 70 }} />
        ))}
      </Tabs>
      {bench.exchange?.isDead === true ? (
        <Typography>Nothing answers: its supply is off.</Typography>
      ) : (
        <Shown menued={menued} unit={PRESSURE_UNITS[bench.lesson.unit].label} tell={tell} />
      )}
    </Sheet>
  );
}
