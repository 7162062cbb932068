import { formatPlain } from '@barys/core/text';
import Typography from '@mui/material/Typography';
import { Sheet } from '@/ui/Sheet';
import { HistoryDrawing } from './HistoryDrawing';
import type { historyShape } from './shape';

export function ErrorsSheet({ shape }: { shape: ReturnType<typeof historyShape> }) {
  return (
    <Sheet title="As found and as left, in units of the limit">
      {shape === null ? (
        <Typography sx={{ color: 'text.secondary' }}>
          Nothing yet. Each signed job leaves its calibration here, as found and as left; results from before
          Barys are brought in under Office, Import.
        </Typography>
      ) : (
        <>
          <HistoryDrawing shape={shape} height={410} />
          <Typography variant="body2" sx={{ mt: 1, color: 'text.secondary' }}>
            △ rising, ▽ falling, ▲ as left; full line: zero, broken: full span, dotted: adjusted
            {shape.prediction !== null &&
              `; dashed: where ${formatPlain(shape.prediction.at)} % of span is going, with bounds of 95 %`}
            .
          </Typography>
        </>
      )}
    </Sheet>
  );
}
