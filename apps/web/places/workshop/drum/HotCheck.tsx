'use client';
import { formatFixed, formatSigned } from '@barys/core/text';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { Columns } from '@/ui/Columns';
import { DataTable } from '@/ui/DataTable';
import { Facts } from '@/ui/Facts';
import { Figure } from '@/ui/Figure';
import { NumberField } from '@/ui/NumberField';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { Working } from '@/ui/Working';
import { keepBiasAction } from '../hand-over/actions';
import { isFault } from '../typed';
import { BiasPicture } from './BiasPicture';
import {
  computeBiasMap,
  computeHotCheck,
  workingOfHotCheck,
  type BiasMap,
  type DrumResult,
  type HotResult,
} from './compute';
import { orDrumFault, type DrumFields } from './fields';

type Change = (patch: Partial<DrumFields>) => void;

/** Glass against transmitter: what the densities explain, the bias, and where it is wrong. */
export function HotCheck({
  fields,
  change,
  result,
}: {
  fields: DrumFields;
  change: Change;
  result: DrumResult;
}) {
  const found = orDrumFault(() => computeHotCheck(fields, result));
  const map = orDrumFault(() =>
    isFault(found) ? { message: found.message, field: null } : computeBiasMap(fields, result, found),
  );
  if (isFault(found) || isFault(map))
    return (
      <Sheet title="Hot check">
        <Typography role="alert" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
          {isFault(found) ? found.message : isFault(map) ? map.message : ''}
        </Typography>
      </Sheet>
    );
  return (
    <Columns columns="1fr 1fr">
      <Sheet title="Hot check">
        <Explained found={found} />
        <Working of="the hot check" steps={() => workingOfHotCheck(fields, result)} />
        <BiasForm fields={fields} change={change} found={found} />
      </Sheet>
      <Sheet title="Where the bias is wrong" aside="error left, % of the range">
        <BiasPicture map={map} at={found} />
        <BiasFigures map={map} />
        <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
          The ring is where it was entered. What the densities do not explain is taken to stay the same.
        </Typography>
      </Sheet>
    </Columns>
  );
}

/** The same as figures, for a small screen and for who does not see the picture: every other pressure and level. */
function BiasFigures({ map: { pressures, levels, errors } }: { map: BiasMap }) {
  const rows = pressures.map(({ at }, index) => ({ at, errors: errors[index] ?? [] }));
  return (
    <DataTable
      label="Error left by the bias"
      rows={rows.filter((_row, index) => index % 2 === 1)}
      keyOf={({ at }) => at}
      columns={[
        ['Drum', ({ at }) => at],
        ...levels.flatMap((level, index) =>
          index % 2 === 1
            ? []
            : [
                [
                  `${level} %`,
                  (row: (typeof rows)[number]) => <Figure>{formatSigned(row.errors[index] ?? 0, 1)}</Figure>,
                  'right',
                ] as const,
              ],
        ),
      ]}
    />
  );
}

const percent = (value: number): string => `${formatFixed(value, 1)} %`;
const signed = (value: number): string => `${formatSigned(value, 1)} %`;

function Explained({ found }: { found: HotResult }) {
  return (
    <Facts
      facts={[
        ['True level by the glass', <Figure key="true">{percent(found.truePercent)}</Figure>],
        ['The transmitter has to show', <Figure key="expected">{percent(found.expectedPercent)}</Figure>],
        ['Densities explain', <Figure key="explained">{signed(found.explainedPercent)}</Figure>],
        ['Left unexplained', <Figure key="unexplained">{signed(found.unexplainedPercent)}</Figure>],
      ]}
    />
  );
}

function BiasForm({ fields, change, found }: { fields: DrumFields; change: Change; found: HotResult }) {
  const { answer, isPending, isKept, form } = useSubmit(keepBiasAction);
  const entry = () => ({
    tag: fields.tag,
    job: fields.job,
    biasPercent: Number(found.bias.toFixed(2)),
    pressurePa: found.pressurePa,
    glassPercent: found.glassPercent,
    shownPercent: found.shownPercent,
    explainedPercent: found.explainedPercent,
    unexplainedPercent: found.unexplainedPercent,
    reason: fields.why,
    address: `${location.pathname}${location.search}`,
  });
  const take = (value: number) => change({ bias: value.toFixed(2) });
  return (
    <Stack
      component="form"
      sx={{ gap: 1.25, mt: 1.5, displayPrint: 'none' }}
      {...form(entry, () => change({ why: '' }))}
    >
      <Typography variant="body2">
        What is left may be a zero, a leg that is not full, or a leak: look there first. One school enters
        what makes the transmitter show the glass, the other what makes it show the true level. Either holds
        at one pressure and level only.
      </Typography>
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <Button variant="outlined" onClick={() => take(found.biasForTrue)}>
          {`True level: ${signed(found.biasForTrue)}`}
        </Button>
        <Button variant="outlined" onClick={() => take(found.biasForGlass)}>
          {`Glass: ${signed(found.biasForGlass)}`}
        </Button>
      </Stack>
      <NumberField
        label="Bias, % of the range"
        text={fields.bias}
        onText={(bias) => change({ bias })}
        helperText={fields.bias.trim() === '' ? `empty takes ${signed(found.bias)}` : undefined}
      />
      <Stack direction="row" sx={{ gap: 1 }}>
        <TextField
          label="Kept with the instrument"
          value={fields.tag}
          onChange={({ target }) => change({ tag: target.value })}
          autoComplete="off"
          sx={{ flex: 2 }}
        />
        <TextField
          label="In job"
          value={fields.job}
          onChange={({ target }) => change({ job: target.value })}
          autoComplete="off"
          sx={{ flex: 1 }}
        />
      </Stack>
      <TextField
        label="Why it is entered"
        value={fields.why}
        onChange={({ target }) => change({ why: target.value })}
      />
      <div>
        <Button type="submit" variant="contained" aria-busy={isPending}>
          Keep the bias
        </Button>
        <Refused answer={answer} />
        {isKept && (
          <Alert severity="success" variant="outlined" sx={{ mt: 1 }}>
            Kept with its pressure and level.
          </Alert>
        )}
      </div>
    </Stack>
  );
}
