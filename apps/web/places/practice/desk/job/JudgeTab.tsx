'use client';
/** The same advice as in a job, on the same screens, from what was read and nothing else. */
import { adviceOnRun } from '@barys/store/advice';
import { evaluateStoredRun, openPoints } from '@barys/store/evaluation';
import type { PracticeBench } from '@barys/rig/practice';
import Typography from '@mui/material/Typography';
import Stack from '@mui/material/Stack';
import type { SubmitEvent } from 'react';
import { ActTable } from '@/places/jobs/advice/ActTable';
import { Findings, WhatToDo } from '@/places/jobs/advice/AdvicePanel';
import { shownActs } from '@/places/jobs/advice/shownActs';
import { RunTable } from '@/places/jobs/RunTable';
import { CorridorSheet } from '@/ui/CorridorSheet';
import { figuresOfRun } from '@/ui/figures';
import { Sheet } from '@/ui/Sheet';
import { VerdictMark } from '@/ui/VerdictMark';
import { bodyOf, runOf } from './lessonRun';

export function JudgeTab({ bench, onAdjust }: { bench: PracticeBench; onAdjust: () => void }) {
  const run = runOf(bench, 'as found');
  if (openPoints(run).length > 0)
    return (
      <Sheet title="What the readings say">
        <Typography sx={{ color: 'text.secondary' }}>It speaks once every point is read as found.</Typography>
      </Sheet>
    );
  const body = bodyOf(bench);
  const advice = adviceOnRun(run, body, false);
  const { verdict } = evaluateStoredRun(run);
  const lead = advice?.acts.find(({ act }) => act === advice.lead);
  const figures = figuresOfRun(run.madeWith);
  const onSubmit = (event: SubmitEvent<HTMLFormElement>) => {
    event.preventDefault();
    onAdjust();
  };
  return (
    <Stack sx={{ gap: 1.5 }}>
      <Sheet title="What the readings say">
        {advice !== null ? (
          <Findings advice={advice} />
        ) : (
          // Each point of a gauge over decades stands by itself.
          verdict !== null && <VerdictMark verdict={verdict} size={24} />
        )}
      </Sheet>
      {advice !== null && (
        <Sheet title="Smallest act that suffices">
          <WhatToDo run={run} advice={advice} body={body} position="" />
          <form onSubmit={onSubmit}>
            <ActTable
              acts={shownActs(run.madeWith.configuration, advice, body, (value) => figures.percent(value))}
              isPending={false}
            />
          </form>
        </Sheet>
      )}
      <CorridorSheet
        asFound={run}
        predicted={lead === undefined || lead.act === 'none' ? null : lead.points}
        height={205}
      />
      <Sheet>
        <RunTable run={run} />
      </Sheet>
    </Stack>
  );
}
