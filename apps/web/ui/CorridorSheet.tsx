import type { Outlook } from '@barys/core/adjust';
import type { StoredRun } from '@barys/store/evaluation';
import { memo, type ComponentProps } from 'react';
import { Corridor, CorridorKey } from './Corridor';
import { corridorOf } from './corridor-shape';
import { Sheet } from './Sheet';

/** The corridor of a run, or of the same points as found and as left, on its sheet; drawn again when its readings change. */
export const CorridorSheet = memo(function CorridorSheet({
  asFound,
  asLeft = null,
  predicted = null,
  height,
  sx,
}: {
  asFound: StoredRun;
  asLeft?: StoredRun | null;
  /** What an act would leave, in the order of the readings as found. */
  predicted?: readonly Outlook[] | null;
  height: number;
  sx?: ComponentProps<typeof Sheet>['sx'];
}) {
  const shape = corridorOf(asFound, asLeft, predicted);
  return (
    <Sheet title="Error against the limit" aside={<CorridorKey shape={shape} />} sx={sx}>
      <Corridor shape={shape} height={height} />
    </Sheet>
  );
});
