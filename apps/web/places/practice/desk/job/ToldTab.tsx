'use client';
/** What the trainee was told, the data sheet where there is one, and hints that cost points. */
import { settingWords, SETTINGS } from '@barys/core/setup';
import { PRESSURE_UNITS } from '@barys/core/units';
import type { Act, Lesson } from '@barys/rig/practice';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { DataTable } from '@/ui/DataTable';
import { Sheet } from '@/ui/Sheet';

export function ToldTab({
  lesson,
  hints,
  onDo,
}: {
  lesson: Lesson;
  hints: number;
  onDo: (act: Act) => string | null;
}) {
  const { setup } = lesson;
  return (
    <Sheet title="What you were told">
      <Typography>{lesson.brief}</Typography>
      {setup === null ? (
        <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.5 }}>
          The limit is ±{lesson.limitPercent} % of {lesson.limitOf === 'span' ? 'span' : 'what it reads'},
          adjust above {lesson.adjustAbovePercent} % of it. The reference ends at {lesson.referenceLimit}{' '}
          {PRESSURE_UNITS[lesson.unit].label}.
        </Typography>
      ) : (
        <DataTable
          label="Data sheet"
          rows={SETTINGS.filter(([key]) => lesson.sheet.includes(key))}
          keyOf={([key]) => key}
          columns={[
            ['Data sheet', ([, name]) => name],
            ['Set', ([key]) => settingWords(setup, key)],
          ]}
        />
      )}
      {lesson.hints.slice(0, hints).map((hint) => (
        <Typography key={hint} sx={{ mt: 1 }}>
          {hint}
        </Typography>
      ))}
      {hints < lesson.hints.length && (
        <Button onClick={() => onDo({ do: 'hint' })} sx={{ mt: 1 }}>
          Hint, −3
        </Button>
      )}
    </Sheet>
  );
}
