import { faultInWords, moveInWords, type Arrangement } from '@barys/core/hookup';
import type { MadeMove } from '@barys/store/jobs';
import { showMoment } from '@/server/dates';
import { DataTable } from '@/ui/DataTable';
import { STAGE_WORD } from './words';

/** The valves as they were moved, with what was wrong at the time. */
export function ValveMoves({ arrangement, moves }: { arrangement: Arrangement; moves: readonly MadeMove[] }) {
  return (
    <DataTable
      label="Valves as they were moved"
      rows={moves}
      keyOf={({ id }) => id}
      columns={[
        ['Stage', ({ stage }) => STAGE_WORD[stage]],
        ['Move', (move) => moveInWords(arrangement, move)],
        ['Who', ({ movedBy, movedAt }) => `${movedBy}, ${showMoment(movedAt)}`],
        ['What was wrong', ({ faults }) => faults.map((fault) => faultInWords(arrangement, fault)).join(' ')],
      ]}
    />
  );
}
