'use client';
import type { ImportChoice } from '@barys/store/imports';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Columns } from '@/ui/Columns';
import { Scroller } from '@/ui/Scroller';
import { Sheet } from '@/ui/Sheet';
import type { Found, Wanted } from './choice';
import { useImportRun } from './useImportRun';

interface Column {
  readonly field: string;
  readonly label: string;
  readonly isRequired?: boolean;
}

const count = (rows: number): string => `${rows.toLocaleString('en')} ${rows === 1 ? 'row' : 'rows'}`;

/** Which column is which, what would be taken over, and taking it over. */
export function ImportDesk({
  id,
  columns,
  header,
  sample,
  initial,
}: {
  id: number;
  columns: readonly Column[];
  header: readonly string[];
  sample: readonly (readonly string[])[];
  initial: ImportChoice;
}) {
  const [choice, setChoice] = useState(initial);
  const { progress, found, error, run, stop, forget } = useImportRun(id);
  const change = (patch: Partial<ImportChoice>) => {
    setChoice((before) => ({ ...before, ...patch }));
    forget();
  };
  const begin = (wanted: Wanted) => void run({ ...choice, wanted });
  return (
    <Columns columns="minmax(300px, 0.8fr) 1.6fr">
      <MappingSheet
        columns={columns}
        header={header}
        mapping={choice.mapping}
        change={(mapping) => change({ mapping })}
      />
      <Stack sx={{ gap: 1.5 }}>
        <SampleSheet header={header} sample={sample} />
        <Sheet title="What would be taken over">
          <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', mb: 1 }}>
            <Button
              variant={found === null ? 'contained' : 'outlined'}
              disabled={progress !== null}
              onClick={() => begin('check')}
            >
              Check all rows
            </Button>
            {progress !== null && <Button onClick={stop}>Stop</Button>}
          </Stack>
          {progress !== null && (
            <Box role="status">
              <LinearProgress
                variant="determinate"
                value={(progress.done / Math.max(progress.of, 1)) * 100}
              />
              <Typography variant="body2">
                {progress.done.toLocaleString('en')} of {count(progress.of)}
              </Typography>
            </Box>
          )}
          {error !== null && (
            <Alert severity="error" variant="outlined">
              {error}
            </Alert>
          )}
          {found !== null && (
            <Outcome id={id} found={found} choice={choice} change={change} begin={begin} header={header} />
          )}
        </Sheet>
      </Stack>
    </Columns>
  );
}

function MappingSheet({
  columns,
  header,
  mapping,
  change,
}: {
  columns: readonly Column[];
  header: readonly string[];
  mapping: ImportChoice['mapping'];
  change: (mapping: ImportChoice['mapping']) => void;
}) {
  return (
    <Sheet title="Which column is which" aside="* is needed">
      <Stack sx={{ gap: 1 }}>
        {columns.map(({ field, label, isRequired }) => (
          <TextField
            key={field}
            select
            label={isRequired === true ? `${label} *` : label}
            value={mapping[field] == null ? '' : String(mapping[field])}
            error={isRequired === true && mapping[field] == null}
            onChange={(event) =>
              change({
                ...mapping,
                [field]: event.target.value === '' ? null : Number(event.target.value),
              })
            }
          >
            <MenuItem value="">— not in the file —</MenuItem>
            {header.map((heading, place) => (
              <MenuItem key={place} value={String(place)}>
                {heading === '' ? `column ${place + 1}` : heading}
              </MenuItem>
            ))}
          </TextField>
        ))}
      </Stack>
    </Sheet>
  );
}

function SampleSheet({
  header,
  sample,
}: {
  header: readonly string[];
  sample: readonly (readonly string[])[];
}) {
  return (
    <Sheet title="What the file looks like">
      <Scroller label="The first rows">
        <Table size="small">
          <TableHead>
            <TableRow>
              {header.map((heading, place) => (
                <TableCell key={place}>{heading}</TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {sample.map((cells, row) => (
              <TableRow key={row}>
                {header.map((_heading, place) => (
                  <TableCell key={place}>{cells[place]}</TableCell>
                ))}
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Scroller>
    </Sheet>
  );
}

function Outcome({
  id,
  found,
  choice,
  change,
  begin,
  header,
}: {
  id: number;
  found: Found;
  choice: ImportChoice;
  change: (patch: Partial<ImportChoice>) => void;
  begin: (wanted: Wanted) => void;
  header: readonly string[];
}) {
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Typography role="status">
        {found.isTaken ? (
          <strong>{count(found.good)} imported.</strong>
        ) : (
          <>
            <strong>{count(found.good)}</strong> to import,
          </>
        )}{' '}
        {count(found.known)} already there and left alone, {count(found.bad)} not good.
      </Typography>
      {found.questions.map((question) => (
        <QuestionField
          key={question.about === 'unit' ? question.unit : 'dateOrder'}
          question={question}
          answers={choice.answers}
          change={(answers) => change({ answers })}
        />
      ))}
      {!found.isTaken && found.good > 0 && (
        <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
          <Button variant="contained" onClick={() => begin('good rows')}>
            Import the {count(found.good)} that are good
          </Button>
          {found.bad > 0 && <Button onClick={() => begin('all or none')}>All or none</Button>}
        </Stack>
      )}
      {found.bad > 0 && <BadRows id={id} found={found} choice={choice} header={header} />}
    </Stack>
  );
}

/** A question about the whole file, which settles many rows at once. */
function QuestionField({
  question,
  answers,
  change,
}: {
  question: Found['questions'][number];
  answers: ImportChoice['answers'];
  change: (answers: ImportChoice['answers']) => void;
}) {
  if (question.about === 'unit')
    return (
      <TextField
        select
        label={`“${question.unit}” in ${count(question.rows)}: which is meant?`}
        value={answers.units[question.unit] ?? ''}
        onChange={(event) =>
          change({ ...answers, units: { ...answers.units, [question.unit]: event.target.value } })
        }
      >
        {question.choices.map((one) => (
          <MenuItem key={one} value={one}>
            {one}
          </MenuItem>
        ))}
      </TextField>
    );
  return (
    <TextField
      select
      label={`Dates in ${count(question.rows)} can be read two ways: which order?`}
      value={answers.dateOrder ?? ''}
      onChange={(event) =>
        change({
          ...answers,
          dateOrder: event.target.value === 'day first' ? 'day first' : 'month first',
        })
      }
    >
      <MenuItem value="day first">day, month, year</MenuItem>
      <MenuItem value="month first">month, day, year</MenuItem>
    </TextField>
  );
}

/** The rows that are not good, each with its reason. */
function BadRows({
  id,
  found,
  choice,
  header,
}: {
  id: number;
  found: Found;
  choice: ImportChoice;
  header: readonly string[];
}) {
  return (
    <>
      <Button
        component="a"
        href={`/office/import/${id}/left-out?${new URLSearchParams({ choice: JSON.stringify(choice) })}`}
        sx={{ alignSelf: 'flex-start' }}
      >
        Rows that are not good, as a file with the reason
      </Button>
      <Scroller label="Rows that are not good">
        <Table size="small">
          <TableHead>
            <TableRow>
              <TableCell>Line</TableCell>
              <TableCell>What is wrong</TableCell>
              <TableCell>{header[0]}</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {found.problems.map(({ line, reason, cells }) => (
              <TableRow key={line}>
                <TableCell>{line}</TableCell>
                <TableCell>{reason}</TableCell>
                <TableCell>{cells[0]}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Scroller>
      {found.bad > found.problems.length && (
        <Typography variant="body2">
          The first {found.problems.length} are shown; the file has all.
        </Typography>
      )}
    </>
  );
}
