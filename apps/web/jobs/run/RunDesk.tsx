'use client';
/** The run screen: the climb above; what to apply, the corridor and the stave below. */
import { atInstrument, CoreError, parseTyped } from '@barys/core';
import { evaluateStoredRun, openPoints, standardAt } from '@barys/store/evaluation';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { CorridorSheet } from '@/ui/CorridorSheet';
import { figuresOfRun } from '@/ui/figures';
import { Sheet } from '@/ui/Sheet';
import { Stave } from '@/ui/Stave';
import { ApplyPanel, RunFigures } from './ApplyPanel';
import { Climb, type ClimbPoint } from './Climb';
import type { Draft } from './keep';
import { Finish } from './Finish';
import { KeysSheet } from './KeysSheet';
import { MarkField, type WordedMark } from './MarkField';
import { parseColumn } from './paste';
import { ReadingField } from './ReadingField';
import { SettleTimer } from './SettleTimer';
import { overRange, slipQuestion } from './slips';
import type { More, ShownRun } from './types';
import { useDesk } from './useDesk';
import { useReadings } from './useReadings';
import { FromSheet } from './FromSheet';

const numberOr = (text: string | null, otherwise: number): number => {
  try {
    return text === null ? otherwise : parseTyped(text).value;
  } catch (error) {
    if (error instanceof CoreError) return otherwise;
    throw error;
  }
};

const plainOr = (text: string | null): string => {
  try {
    return text === null ? '' : parseTyped(text).text;
  } catch (error) {
    if (error instanceof CoreError) return '';
    throw error;
  }
};

const isSame = (a: More, b: More): boolean => JSON.stringify(a) === JSON.stringify(b);

export function RunDesk({ jobId, run, earlier }: { jobId: number; run: ShownRun; earlier: ShownRun | null }) {
  const { madeWith } = run;
  const { points } = madeWith;
  const readings = useReadings(run);
  const { desk, takeOver } = useDesk(jobId);
  const [sheetTime, setSheetTime] = useState('');
  const { entries } = readings;
  const [choice, setChosen] = useState<number | null | 'begin'>('begin');
  const begin = (): number | null =>
    Object.keys(readings.drafts).map(Number)[0] ??
    openPoints({ madeWith, readings: [...entries.values()], marks: readings.marks })[0]?.position ??
    null;
  // Until a point is chosen: the one that something was typed at, else the first without a reading.
  const chosen = choice === 'begin' ? begin() : choice;
  const [isHelpOpen, setIsHelpOpen] = useState(false);
  const [doubt, setDoubt] = useState<{ at: number; text: string; words: string } | null>(null);
  const [marking, setMarking] = useState<WordedMark | null>(null);
  const [settled, setSettled] = useState<{ at: number; since: number } | null>(null);
  const [pasteProblem, setPasteProblem] = useState<string | null>(null);

  const figures = useMemo(() => figuresOfRun(madeWith), [madeWith]);
  const standing = useMemo(
    () => ({
      madeWith,
      readings: [...entries.values()].sort((a, b) => a.position - b.position),
      marks: readings.marks,
    }),
    [madeWith, entries, readings.marks],
  );
  const evaluation = useMemo(() => evaluateStoredRun(standing), [standing]);
  const judgedAt = (position: number) =>
    evaluation.readings[standing.readings.findIndex((reading) => reading.position === position)];

  /** What the standard has to show for a point: less than the nominal where the instrument sees more. */
  const atStandard = ({ nominalApplied }: (typeof points)[number]): number =>
    atInstrument(nominalApplied, -madeWith.head);
  const roundedAtStandard = (point: (typeof points)[number]): number =>
    numberOr(figures.input(atStandard(point)), atStandard(point));
  const current = points.find(({ position }) => position === chosen) ?? null;
  const open = openPoints(standing);
  const isComplete = open.length === 0;
  const currentEntry = current === null ? undefined : entries.get(current.position);
  const draft: Draft = (current === null ? undefined : readings.drafts[current.position]) ?? {
    output: currentEntry?.outputText ?? '',
    applied:
      currentEntry !== undefined && current !== null && currentEntry.applied !== roundedAtStandard(current)
        ? currentEntry.appliedText
        : null,
    more: currentEntry?.more ?? {},
  };

  /** To the next point without a reading, then to one that was passed over, then to none. */
  const goOn = (from: number, done: readonly number[]) => {
    const left = open.filter(({ position }) => !done.includes(position));
    setChosen((left.find(({ position }) => position > from) ?? left[0])?.position ?? null);
    setDoubt(null);
    setMarking(null);
  };

  const enter = (position: number, typed: Draft): void => {
    const point = points.find((one) => one.position === position);
    if (point === undefined) return;
    const appliedText = typed.applied?.trim() ?? figures.input(atStandard(point));
    const before = entries.get(position);
    const isUnchanged =
      before?.outputText === typed.output.trim() &&
      before.appliedText === appliedText &&
      isSame(before.more, typed.more ?? {});
    if (isUnchanged) readings.keepDraft(position, null);
    else
      readings.enter(
        {
          position,
          appliedText,
          appliedAs: typed.applied === null ? 'set' : 'read',
          outputText: typed.output.trim(),
          more: typed.more ?? {},
        },
        sheetTime === '' ? null : new Date(sheetTime),
      );
  };

  const enterAndGoOn = (typed: Draft): string | null => {
    if (current === null) return null;
    setPasteProblem(null);
    const applied = numberOr(typed.applied, atStandard(current));
    const stop = overRange(madeWith, current, applied);
    if (stop !== null) return stop;
    const output = numberOr(typed.output, NaN);
    const words = slipQuestion(
      madeWith,
      current,
      { applied, output, outputText: typed.output },
      entries,
      figures,
    );
    const isAsked = doubt?.at === current.position && doubt.text === typed.output;
    if (words !== null && !isAsked) {
      setDoubt({ at: current.position, text: typed.output, words });
      return null;
    }
    enter(current.position, typed);
    goOn(current.position, [current.position]);
    return null;
  };

  /** A bad approach stays as a mark; the point is approached again. */
  const overshot = () => {
    if (current === null) return;
    readings.mark({
      position: current.position,
      mark: 'overshot',
      appliedText: plainOr(draft.applied),
      outputText: plainOr(draft.output),
      remark: '',
    });
    setSettled(null);
  };
  const keepWorded = (kind: WordedMark) => (remark: string) => {
    if (current === null) return;
    readings.mark({ position: current.position, mark: kind, appliedText: '', outputText: '', remark });
    if (kind === 'no reading') goOn(current.position, [current.position]);
    else setMarking(null);
  };
  const onLetter = (letter: string): boolean => {
    const commands: Record<string, () => void> = {
      o: overshot,
      x: () => setMarking('no reading'),
      n: () => setMarking('note'),
      t: () => current !== null && setSettled({ at: current.position, since: Date.now() }),
      '?': () => setIsHelpOpen(true),
    };
    commands[letter]?.();
    return commands[letter] !== undefined;
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
    goOn(current.position, filled);
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
      overshotCount: readings.marks.filter(
        (mark) => mark.position === point.position && mark.kind === 'overshot',
      ).length,
      words: readings.marks
        .filter((mark) => mark.position === point.position && mark.kind !== 'overshot')
        .map(({ kind, remark }) => `${kind}: ${remark}`),
      hasDraft: (readings.drafts[point.position]?.output ?? '') !== '',
    }));

  return (
    <>
      {!desk.isMine && (
        <Alert
          severity="info"
          variant="outlined"
          sx={{ mb: 1 }}
          action={
            desk.canTakeOver ? (
              <Button onClick={takeOver} autoFocus>
                Take the job over
              </Button>
            ) : undefined
          }
        >
          {desk.words}
        </Alert>
      )}
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
              applied={atInstrument(numberOr(draft.applied, atStandard(current)), madeWith.head)}
              figures={figures}
            >
              {madeWith.settle !== null && (
                <SettleTimer
                  settle={madeWith.settle}
                  startedAt={settled?.at === current.position ? settled.since : null}
                  onStart={() => setSettled({ at: current.position, since: Date.now() })}
                />
              )}
            </ApplyPanel>
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
          {marking !== null && current !== null && (
            <MarkField kind={marking} onKeep={keepWorded(marking)} onLeave={() => setMarking(null)} />
          )}
          <Climb
            head={madeWith.head}
            points={climbPoints}
            current={current?.position ?? null}
            figures={figures}
            onChoose={setChosen}
            field={
              current !== null &&
              desk.isMine && (
                <ReadingField
                  key={current.position}
                  point={current}
                  madeWith={madeWith}
                  doubt={doubt?.at === current.position && doubt.text === draft.output ? doubt.words : null}
                  draft={draft}
                  figures={figures}
                  onDraft={(next) => readings.keepDraft(current.position, next)}
                  onEnter={enterAndGoOn}
                  onMove={move}
                  onColumn={enterColumn}
                  onLetter={onLetter}
                />
              )
            }
          />
        </Box>
        <CorridorSheet
          asFound={earlier ?? standing}
          asLeft={earlier === null ? null : standing}
          height={205}
          sx={{ gridArea: 'corridor' }}
        />
        <Sheet sx={{ gridArea: 'stave' }} title="Signal stave">
          <Stave
            body={madeWith.body}
            configuration={madeWith.configuration}
            marker={
              current === null
                ? undefined
                : atInstrument(numberOr(draft.applied, atStandard(current)), madeWith.head)
            }
            spacing={52}
          />
          <Typography variant="body2" sx={{ color: 'text.secondary', mt: 0.5 }}>
            {current === null || madeWith.secondReference === null
              ? `Reference ${[madeWith.pressureReference, madeWith.secondReference].flatMap((one) => one?.tag ?? []).join(' and ')}`
              : `Reference at this point ${standardAt(madeWith, current).tag}`}
            {madeWith.meter === null ? ', read by eye' : `, meter ${madeWith.meter.tag}`}
          </Typography>
        </Sheet>
      </Box>
      <FromSheet time={sheetTime} onTime={setSheetTime} />
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
