'use client';
/** The job beside the bench, on the screens of a real one: as a phone has them, since they stand beside it. */
import { isAdjusting, type Act, type Cause, type PracticeBench } from '@barys/rig/practice';
import { createTheme, ThemeProvider, type Theme } from '@mui/material/styles';
import Tab from '@mui/material/Tab';
import Tabs from '@mui/material/Tabs';
import Box from '@mui/material/Box';
import { memo } from 'react';
import { useDeskText } from '../useDeskText';
import { AdjustTab } from './AdjustTab';
import { JudgeTab } from './JudgeTab';
import { NameTab } from './NameTab';
import { RunTab } from './RunTab';
import { ToldTab } from './ToldTab';

const TABS = ['Told', 'As found', 'Judge', 'Adjust', 'As left', 'Name it'] as const;
export type TabName = (typeof TABS)[number];

/** Screens that stand in a column are laid out as on a phone, however wide the window is. */
const COLUMN = createTheme({ breakpoints: { values: { xs: 0, sm: 9000, md: 9001, lg: 9002, xl: 9003 } } });
const inColumn = (outer: Theme): Theme => ({ ...outer, breakpoints: COLUMN.breakpoints });

/** What of a job a lesson has. */
function tabsOf({ lesson, done }: PracticeBench): readonly TabName[] {
  if (lesson.task !== 'run') return ['Told', 'Name it'];
  const isAdjusted = done.some(({ act }) => isAdjusting(act));
  return TABS.filter((tab) => {
    if (tab === 'As found' || tab === 'Judge') return lesson.hasAsFound;
    if (tab === 'As left') return isAdjusted || !lesson.hasAsFound;
    return true;
  });
}

/** Drawn again when something was done, and not with every moment of the bench. */
export const JobTabs = memo(function JobTabs({
  bench,
  causes,
  onCauses,
  onDo,
  onFinish,
  isPending,
  error,
}: {
  bench: PracticeBench;
  /** How much is done: what the tabs show changes with it. */
  count: number;
  causes: readonly Cause[];
  onCauses: (causes: readonly Cause[]) => void;
  onDo: (act: Act) => string | null;
  onFinish: () => void;
  isPending: boolean;
  error: string | null;
}) {
  const [open, setOpen] = useDeskText('job', 'Told');
  const tabs = tabsOf(bench);
  const tab = tabs.find((name) => name === open) ?? 'Told';
  const setTab = (next: TabName) => setOpen(next);
  const hints = bench.done.filter(({ act }) => act.do === 'hint').length;
  return (
    // It goes through its own length, so that the bench stays in sight beside it.
    <Box
      sx={{
        position: { md: 'sticky' },
        top: 8,
        maxHeight: { md: 'calc(100vh - 144px)' },
        overflowY: { md: 'auto' },
      }}
    >
      <Tabs
        value={tab}
        onChange={(_event, next: TabName) => setTab(next)}
        variant="scrollable"
        scrollButtons="auto"
        aria-label="The job"
        sx={{ minHeight: 44, mb: 1 }}
      >
        {tabs.map((name) => (
          <Tab key={name} value={name} label={name} sx={{ minWidth: 60, minHeight: 44, px: 1.25 }} />
        ))}
      </Tabs>
      <ThemeProvider theme={inColumn}>
        <Box role="tabpanel" aria-label={tab}>
          {tab === 'Told' && <ToldTab lesson={bench.lesson} hints={hints} onDo={onDo} />}
          {(tab === 'As found' || tab === 'As left') && (
            <RunTab
              key={tab}
              bench={bench}
              pass={tab === 'As found' ? 'as found' : 'as left'}
              onDo={onDo}
              onGoOn={() => setTab(tab === 'As found' ? 'Judge' : 'Name it')}
            />
          )}
          {tab === 'Judge' && <JudgeTab bench={bench} onAdjust={() => setTab('Adjust')} />}
          {tab === 'Adjust' && <AdjustTab bench={bench} onDo={onDo} onAsLeft={() => setTab('As left')} />}
          {tab === 'Name it' && (
            <NameTab
              causes={causes}
              onChoose={onCauses}
              onFinish={onFinish}
              isPending={isPending}
              error={error}
            />
          )}
        </Box>
      </ThemeProvider>
    </Box>
  );
});
