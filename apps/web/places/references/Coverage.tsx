import type { Instrument, listReferences } from '@barys/store/registers';
import { fitOf, measuresSide } from '@barys/store/runs';
import Typography from '@mui/material/Typography';
import { CoverageTable } from './CoverageTable';
import { rangeWords } from './words';

/** The range of the reference that serves the instrument best, on the side where it measures what is asked for. */
export function Coverage({
  own,
  instrument,
  today,
}: {
  own: Awaited<ReturnType<typeof listReferences>>;
  instrument: Instrument;
  today: string;
}) {
  const options = (['input', 'output'] as const).flatMap((side) =>
    own
      .filter((reference) => measuresSide(reference, instrument, side))
      .map((reference) => ({ side, fit: fitOf(reference, instrument, side, { today }) })),
  );
  const covering = options
    .filter(({ fit }) => fit.ratio !== null)
    .sort(
      (a, b) =>
        Number(a.fit.unfit !== null) - Number(b.fit.unfit !== null) ||
        (b.fit.ratio ?? 0) - (a.fit.ratio ?? 0),
    );
  const [best] = covering;
  if (best === undefined)
    return (
      <Typography variant="body2" sx={{ mt: 1 }}>
        {options.length === 0
          ? `It measures nothing that ${instrument.tag} asks for.`
          : `It does not serve ${instrument.tag}: ${options[0]?.fit.unfit}.`}
      </Typography>
    );
  const { reference, unfit } = best.fit;
  return (
    <>
      <Typography variant="body2" sx={{ my: 1 }}>
        {[reference.name, rangeWords(reference)].filter(Boolean).join(', ')}, for the {best.side} of{' '}
        {instrument.tag}
        {unfit === null ? '.' : `; it does not fit: ${unfit}.`} The upright line stands at 4:1.
      </Typography>
      <CoverageTable reference={reference} instrument={instrument} side={best.side} today={today} />
    </>
  );
}
