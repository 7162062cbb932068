'use client';
/** The run screen: the climb above; what to apply, the corridor and the stave below. */
import { CoreError, parseTyped } from '@barys/core';
import { evaluateStoredRun, missingPoints } from '@barys/store/evaluation';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Corridor, CorridorKey } from '@/ui/Corridor';
import { corridorPoints } from '@/ui/corridor';
import { figuresFor } from '@/ui/figures';
import { Sheet } from '@/ui/Sheet';
import { Stave } from '@/ui/Stave';
import { ApplyPanel, RunFigures } from './ApplyPanel';
import { Climb, type ClimbPoint } from './Climb';
import type { Draft } from './keep';
import { Finish } from './Finish';
import { KeysSheet } from './KeysSheet';
import { parseColumn } from './paste';
import { ReadingField } from './ReadingField';
import type { ShownRun } from './types';
import { useReadings } from './useReadings';

const numberOr = (text: string | null, otherwise: number): number => {
  try {
    return text === null ? otherwise : parseTyped(text).value;
  } catch (error) {
    if (error instanceof CoreError) return otherwise;
    throw error;
  }
};

export function RunDesk({ jobId, run, earlier }: { jobId: number; run: ShownRun; earlier: ShownRun | null }) {
  const { madeWith } = run;
  const { points } = madeWith;
  const readings = useReadings(run);
  const { entries } = readings;
  const [choice, setChosen] = useState<number | null | 'begin'>('begin');
  const begin = (): number | null =>
    Object.keys(readings.drafts).map(Number)[0] ??
    points.find(({ position }) => !entries.has(position))?.position ??
    null;
  // Until a point is chosen: the one that something was typed at, else the first without a reading.
  const chosen = choice === 'begin' ? begin() : choice;
  const [isHelpOpen, setIsHelpOpen] = useState(false);
  const [pasteProblem, setPasteProblem] = useState<string | null>(null);

  const figures = useMemo(() => figuresFor(madeWith.configuration, madeWith.meter.resolution), [madeWith]);
  const standing = useMemo(
    () => ({ madeWith, readings: [...entries.values()].sort((a, b) => a.position - b.position) }),
    [madeWith, entries],
  );
  const evaluation = useMemo(() => evaluateStoredRun(standing), [standing]);
  const judgedAt = (position: number) =>
    evaluation.readings[standing.readings.findIndex((reading) => reading.position === position)];

  const current = points.find(({ position }) => position === chosen) ?? null;
  const isComplete = missingPoints(standing) === 0;
  const currentEntry = current === null ? undefined : entries.get(current.position);
  const draft: Draft = (current === null ? undefined : readings.drafts[current.position]) ?? {
    output: currentEntry?.outputText ?? '',
    applied:
      currentEntry !== undefined && currentEntry.applied !== current?.nominalApplied
        ? currentEntry.appliedText
        : null,
  };

  /** To the next point without a reading, then to one that was passed over, then to none. */
  const goOn = (from: number, known: ReadonlySet<number>) => {
    const open = points.filter(({ position }) => !known.has(position));
    setChosen((open.find(({ position }) => position > from) ?? open[0])?.position ?? null);
  };

  const enter = (position: number, typed: Draft): void => {
    const point = points.find((one) => one.position === position);
    if (point === undefined) return;
    const appliedText = typed.applied?.trim() ?? figures.input(point.nominalApplied);
    const before = entries.get(position);
    const isUnchanged = before?.outputText === typed.output.trim() && before.appliedText === appliedText;
    if (isUnchanged) readings.keepDraft(position, null);
    else
      readings.enter({
        position,
        appliedText,
        appliedAs: typed.applied === null ? 'set' : 'read',
        outputText: typed.output.trim(),
      });
  };

  const enterAndGoOn = (typed: Draft) => {
    if (current === null) return;
    setPasteProblem(null);
    enter(current.position, typed);
    goOn(current.position, new Set([...entries.keys(), current.position]));
  };

  const enterColumn = (text: string) => {
    if (current === null) return;
    const from = points.filter(({ position }) => position >= current.position);
    const lines = parseColumn(text, from.length);
    if (typeof lines === 'string') {
      setPasteProblem(lines);
      return;
    }
    setPasteProblem(null);
    const filled = from.slice(0, lines.length).map(({ position }) => position);
    lines.forEach((line, index) => enter(filled[index] ?? 0, line));
    goOn(current.position, new Set([...entries.keys(), ...filled]));
  };

  const move = (step: 1 | -1) => {
    const index = points.findIndex(({ position }) => position === chosen);
    const next = points[index === -1 && step === -1 ? points.length - 1 : index + step];
    if (next !== undefined) setChosen(next.position);
    else if (isComplete && step === 1) setChosen(null);
  };

  useHotkeys('up', () => move(-1), { enabled: chosen === null });
  useHotkeys('shift+slash', () => setIsHelpOpen(true), { enabled: chosen === null });

  // One climb at a time: a second cycle has the treads of the first.
  const cycles = points.at(-1)?.cycle ?? 1;
  const cycle = current?.cycle ?? cycles;
  const climbPoints: ClimbPoint[] = points
    .filter((point) => point.cycle === cycle)
    .map((point) => ({
      point,
      entry: entries.get(point.position),
      judged: judgedAt(point.position),
      earlierText: earlier?.readings.find(({ position }) => position === point.position)?.outputText,
      hasDraft: (readings.drafts[point.position]?.output ?? '') !== '',
    }));

  return (
    <>
      <Status readings={readings} pasteProblem={pasteProblem} onHelp={() => setIsHelpOpen(true)} />
      <Box
        sx={{
          display: 'grid',
          gap: 1.5,
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: '1fr 1.45fr 1.1fr' },
          gridTemplateAreas: {
            xs: '"apply" "climb" "corridor" "stave"',
            md: '"climb climb climb" "apply corridor stave"',
          },
        }}
      >
        <Sheet
          // On a phone what to apply stays in sight while the treads scroll under it.
          sx={{
            gridArea: 'apply',
            position: { xs: 'sticky', md: 'static' },
            top: 0,
            zIndex: 3,
            p: { xs: 1.25, md: 2 },
          }}
        >
          {current === null ? (
            <Finish
              jobId={jobId}
              kind={run.kind}
              count={points.length}
              isSaved={readings.waitingCount === 0}
            />
          ) : (
            <ApplyPanel
              madeWith={madeWith}
              point={current}
              applied={numberOr(draft.applied, current.nominalApplied)}
              figures={figures}
            />
          )}
          <RunFigures evaluation={evaluation} figures={figures} />
          {current !== null && isComplete && (
            <Button onClick={() => setChosen(null)} sx={{ mt: 1 }}>
              Done correcting
            </Button>
          )}
        </Sheet>
        <Box sx={{ gridArea: 'climb' }}>
          {cycles > 1 && (
            <Typography variant="body2" sx={{ color: 'text.secondary' }}>
              Cycle {cycle} of {cycles}
            </Typography>
          )}
          <Climb
            points={climbPoints}
            current={current?.position ?? null}
            figures={figures}
            onChoose={setChosen}
            field={
              current !== null && (
                <ReadingField
                  key={current.position}
                  point={current}
                  draft={draft}
                  figures={figures}
                  onDraft={(next) => readings.keepDraft(current.position, next)}
                  onEnter={enterAndGoOn}
                  onMove={move}
                  onColumn={enterColumn}
                  onHelp={() => setIsHelpOpen(true)}
                />
              )
            }
          />
        </Box>
        <Sheet
          sx={{ gridArea: 'corridor' }}
          title="Error against the limit"
          aside={<CorridorKey hasAsLeft={run.kind === 'as-left'} />}
        >
          <Corridor
            asFound={corridorPoints(earlier ?? standing)}
            asLeft={earlier === null ? [] : corridorPoints(standing)}
            adjustAbovePercent={madeWith.tolerance.adjustAbovePercentOfLimit}
            height={205}
          />
        </Sheet>
        <Sheet sx={{ gridArea: 'stave' }} title="Signal stave">
          <Stave
            body={madeWith.body}
            configuration={madeWith.configuration}
            marker={current === null ? undefined : numberOr(draft.applied, current.nominalApplied)}
            spacing={52}
          />
          <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.5 }}>
            Reference {madeWith.pressureReference.tag}, meter {madeWith.meter.tag}
          </Typography>
        </Sheet>
      </Box>
      <KeysSheet isOpen={isHelpOpen} onClose={() => setIsHelpOpen(false)} />
    </>
  );
}

function Status({
  readings,
  pasteProblem,
  onHelp,
}: {
  readings: ReturnType<typeof useReadings>;
  pasteProblem: string | null;
  onHelp: () => void;
}) {
  const { waitingCount, savedClock, problem } = readings;
  return (
    <Stack
      direction="row"
      sx={{ justifyContent: 'space-between', alignItems: 'center', minHeight: 30, gap: 2 }}
    >
      <Typography role="alert" variant="body2" sx={{ color: 'var(--outside)', fontWeight: 600 }}>
        {pasteProblem ?? problem ?? ''}
      </Typography>
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center', flexShrink: 0 }}>
        <Typography role="status" variant="body2" sx={{ color: 'text.secondary' }}>
          {waitingCount > 0
            ? `${waitingCount} not saved yet, kept in this browser, trying again`
            : savedClock === null
              ? ''
              : `saved ${savedClock}`}
        </Typography>
        <Button size="small" onClick={onHelp} sx={{ minHeight: 30, py: 0 }}>
          Keys: ?
        </Button>
      </Stack>
    </Stack>
  );
}
