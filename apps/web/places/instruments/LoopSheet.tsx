import type { Instrument, LoopVersion } from '@barys/store/registers';
import Alert from '@mui/material/Alert';
import Typography from '@mui/material/Typography';
import { showDate } from '@/server/dates';
import { Facts } from '@/ui/Facts';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';

/** What was typed of the instrument in its loop, where its configuration says otherwise by now; empty where they agree. */
function differenceOf(
  { content }: LoopVersion,
  { configuration }: Pick<Instrument, 'configuration'>,
): string {
  const head = content.items.find(({ from }) => from === null);
  if (head === undefined) return '';
  const { lrv, urv, inputUnit } = configuration;
  return head.input.low === lrv && head.input.high === urv
    ? ''
    : `It was drawn with ${head.input.low} to ${head.input.high} ${head.inputUnit}; the instrument is set to ${lrv} to ${urv} ${inputUnit}. A loop check takes what is set.`;
}

/** The loop that the instrument sends its signal through, and its versions. */
export function LoopSheet({ instrument, loops }: { instrument: Instrument; loops: readonly LoopVersion[] }) {
  const [loop, ...earlier] = loops;
  const { tag } = instrument;
  if (loop === undefined)
    return (
      <Sheet title="Loop">
        <Typography sx={{ color: 'text.secondary' }}>
          None is kept. Draw it once, and it can be checked from the transmitter to the last receiver.
        </Typography>
        <LinkButton href={`/workshop/loop?tag=${encodeURIComponent(tag)}`}>Draw it</LinkButton>
      </Sheet>
    );
  const difference = differenceOf(loop, instrument);
  return (
    <Sheet
      title="Loop"
      aside={
        <LinkButton href={`/workshop/loop?${new URLSearchParams({ ...loop.fields, tag })}`}>
          Open it in the workshop
        </LinkButton>
      }
    >
      {difference !== '' && (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1 }}>
          {difference}
        </Alert>
      )}
      <Facts
        facts={[
          ['Items', loop.content.items.map(({ name }) => name).join(' → ')],
          ['Output driven by', instrument.configuration.drivenBy ?? 'not entered'],
          ['Judged by', `the ${loop.content.judgedBy} of tolerances`],
          ['Version', `${loop.version}, ${showDate(loop.madeAt)}, ${loop.madeBy}: ${loop.reason}`],
          ...earlier.map(
            (one) =>
              [`Version ${one.version}`, `${showDate(one.madeAt)}, ${one.madeBy}: ${one.reason}`] as const,
          ),
        ]}
      />
    </Sheet>
  );
}
