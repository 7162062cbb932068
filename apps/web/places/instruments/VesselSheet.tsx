import { ARRANGEMENTS } from '@barys/core/level';
import { formatFixed, formatSignificant } from '@barys/core/text';
import { PRESSURE_UNITS } from '@barys/core/units';
import type { Instrument, Liquid, VesselVersion } from '@barys/store/registers';
import Alert from '@mui/material/Alert';
import Typography from '@mui/material/Typography';
import { arrangementOf, LEVEL_FIELDS } from '@/places/workshop/level/fields';
import { showDate } from '@/server/dates';
import { Facts } from '@/ui/Facts';
import { Figure } from '@/ui/Figure';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';
import { vesselAgainstRange } from './vesselRange';

const nameOf = ({ tool, fields }: VesselVersion): string =>
  tool === 'drum' ? 'Boiler drum' : ARRANGEMENTS[arrangementOf({ ...LEVEL_FIELDS, ...fields })].name;

const addressOfVessel = ({ tool, fields }: VesselVersion, tag: string): string =>
  `/workshop/${tool}?${new URLSearchParams({ ...fields, tag })}`;

/** What a level is measured in, the range that it comes to, and whether that is the one that is set. */
export function VesselSheet({
  instrument,
  vessels,
  liquids,
}: {
  instrument: Instrument;
  vessels: readonly VesselVersion[];
  liquids: readonly Liquid[];
}) {
  const [vessel, ...earlier] = vessels;
  const { tag } = instrument;
  if (vessel === undefined)
    return (
      <Sheet title="Vessel">
        <Typography sx={{ color: 'text.secondary' }}>
          None is entered. Work the range out once, and it can be worked out again from what the plant knows.
        </Typography>
        <LinkButton href={`/workshop/level?tag=${encodeURIComponent(tag)}`}>Work it out</LinkButton>
      </Sheet>
    );
  const found = vesselAgainstRange(vessel, instrument, liquids);
  const unit = PRESSURE_UNITS[instrument.configuration.inputUnit].label;
  return (
    <Sheet
      title="Vessel"
      aside={<LinkButton href={addressOfVessel(vessel, tag)}>Work it out again</LinkButton>}
    >
      {found === null ? (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1 }}>
          What is kept comes to no range. Work it out again.
        </Alert>
      ) : (
        found.asksForChange && (
          <Alert severity="warning" variant="outlined" sx={{ mb: 1 }}>
            {`The vessel asks for another range: an end is off by ${formatSignificant(found.offPercent, 2)} % of span, more than the tolerance.`}
          </Alert>
        )
      )}
      {found?.density != null && (
        <Alert severity="warning" variant="outlined" sx={{ mb: 1 }}>
          {`The plant’s table says ${formatFixed(found.density.now, 1)} kg/m³ by now; the vessel was entered with ${formatFixed(found.density.kept, 1)}. Work the range out again.`}
        </Alert>
      )}
      <Facts
        facts={[
          ['Arrangement', nameOf(vessel)],
          [
            'Range it gives',
            found === null ? (
              'none'
            ) : (
              <Figure key="range">{`${formatSignificant(found.lrv, 5)} … ${formatSignificant(found.urv, 5)} ${unit}`}</Figure>
            ),
          ],
          ['Version', `${vessel.version}, ${showDate(vessel.madeAt)}, ${vessel.madeBy}: ${vessel.reason}`],
          ...earlier.map(
            (one) =>
              [`Version ${one.version}`, `${showDate(one.madeAt)}, ${one.madeBy}: ${one.reason}`] as const,
          ),
        ]}
      />
    </Sheet>
  );
}
