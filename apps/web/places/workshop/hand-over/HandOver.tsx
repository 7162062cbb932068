'use client';
import type { TorqueUnit } from '@barys/store/shapes';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { LinkButton } from '@/ui/LinkButton';
import { Refused } from '@/ui/Refused';
import { Sheet } from '@/ui/Sheet';
import { useSubmit } from '@/ui/useSubmit';
import { useTyped } from '@/ui/useTyped';
import type { Answer } from '@/server/answer';
import { handOverAction, keepNoteAction } from './actions';

/** What an instrument keeps in versions: the vessel of a level, a loop. */
export interface VersionEntry {
  readonly what: 'vessel' | 'loop';
  readonly why: string;
  readonly onWhy: (why: string) => void;
  readonly keep: (tag: string) => Promise<Answer>;
}

interface HandOverProps {
  tag: string;
  /** Not given where it is handed over to one instrument only. */
  onTag?: (tag: string) => void;
  /** Fields of the form of a configuration that were worked out; null where there is no range to hand over. */
  configuration: Readonly<Record<string, string>> | null;
  /** What a note begins with. */
  note: string;
  /** What stands in the fields of the tool, where an instrument keeps it in versions. */
  version?: VersionEntry;
  /** What handing over means here, before anything else. */
  about?: string;
  /** Where the job may be one in which the body is exchanged: torques in which unit. */
  torqueUnit?: TorqueUnit;
}

/** Hands what was worked out to an instrument: a range-change job, its next configuration, or a note. */
export function HandOver({
  tag: typed,
  onTag,
  configuration,
  note,
  version,
  about,
  torqueUnit,
}: HandOverProps) {
  const tag = typed.trim().toUpperCase();
  return (
    <Sheet title="Hand over" sx={{ displayPrint: 'none' }}>
      {about !== undefined && <Typography variant="body2">{about}</Typography>}
      {onTag !== undefined && (
        <TextField
          label="Tag of the instrument"
          value={typed}
          onChange={(event) => onTag(event.target.value)}
          autoComplete="off"
          fullWidth
        />
      )}
      {tag !== '' && (
        <Stack sx={{ gap: 1.5, mt: 1.5 }}>
          {configuration !== null && (
            <JobForm tag={tag} configuration={configuration} torqueUnit={torqueUnit} />
          )}
          {version !== undefined && <VersionKeep tag={tag} version={version} />}
          <NoteForm key={tag} tag={tag} note={note} />
        </Stack>
      )}
      <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1 }}>
        {configuration === null
          ? 'A note stays with the instrument, and leads back to what is typed here.'
          : 'The job carries the new configuration, the points of its procedure, the label, and the list of what must follow. The body’s limits are held against it.'}
      </Typography>
    </Sheet>
  );
}

function JobForm({
  tag,
  configuration,
  torqueUnit,
}: {
  tag: string;
  configuration: Readonly<Record<string, string>>;
  torqueUnit: TorqueUnit | undefined;
}) {
  const [isExchange, setExchange] = useState(false);
  const { answer, isPending, form } = useSubmit(handOverAction);
  return (
    <form {...form(() => ({ tag, configuration, exchange: isExchange ? (torqueUnit ?? null) : null }))}>
      {torqueUnit !== undefined && (
        <FormControlLabel
          sx={{ minHeight: 44 }}
          control={<Checkbox checked={isExchange} onChange={(_event, isOn) => setExchange(isOn)} />}
          label="The body is exchanged: its checklist goes into the job"
        />
      )}
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
        <Button type="submit" variant="contained" aria-busy={isPending}>
          {`Open a range-change job on ${tag}`}
        </Button>
        <LinkButton
          href={`/instruments/${encodeURIComponent(tag)}/configure?${new URLSearchParams(configuration)}`}
        >
          {`As the next configuration of ${tag}`}
        </LinkButton>
      </Stack>
      <Refused answer={answer} />
    </form>
  );
}

function NoteForm({ tag, note }: { tag: string; note: string }) {
  // What somebody typed stays when the figures go on; until then the figures speak for themselves.
  const [typed, change, draft] = useTyped({ text: '', isOwn: '' }, `note on ${tag}`);
  const text = typed.isOwn === '' ? note : typed.text;
  const { answer, isPending, isKept, form } = useSubmit(keepNoteAction);
  // The address is read when it is sent: it holds what stands in the fields then.
  const entry = () => ({ tag, text, address: `${location.pathname}${location.search}` });
  return (
    <form
      {...form(entry, () => {
        change({ text: '', isOwn: 'yes' });
        draft.forget();
      })}
    >
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <TextField
          label="Or a note on it"
          value={text}
          onChange={(event) => change({ text: event.target.value, isOwn: 'yes' })}
          multiline
          sx={{ flex: 1, minWidth: 200 }}
        />
        <Button type="submit" aria-busy={isPending} sx={{ minHeight: 44 }}>
          Keep the note
        </Button>
      </Stack>
      <Refused answer={answer} />
      {isKept && (
        <Alert severity="success" variant="outlined" sx={{ mt: 1 }}>
          {`Kept with ${tag}.`}
        </Alert>
      )}
    </form>
  );
}

/** What stands in the fields becomes a new version of what the instrument has of its kind. */
function VersionKeep({ tag, version }: { tag: string; version: VersionEntry }) {
  const { what, why, onWhy, keep } = version;
  const { answer, isPending, isKept, form } = useSubmit(keep);
  return (
    <form
      {...form(
        () => tag,
        () => onWhy(''),
      )}
    >
      <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <TextField
          label={`Or as its ${what}: why`}
          value={why}
          onChange={(event) => onWhy(event.target.value)}
          sx={{ flex: 1, minWidth: 200 }}
        />
        <Button type="submit" aria-busy={isPending} sx={{ minHeight: 44 }}>
          Keep the {what}
        </Button>
      </Stack>
      <Refused answer={answer} />
      {isKept && (
        <Alert severity="success" variant="outlined" sx={{ mt: 1 }}>
          {`Kept as a new version of the ${what} of ${tag}.`}
        </Alert>
      )}
    </form>
  );
}
