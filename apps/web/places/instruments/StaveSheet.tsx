import { formatPlain } from '@barys/core/text';
import { PRESSURE_UNITS } from '@barys/core/units';
import type { Instrument } from '@barys/store/registers';
import Box from '@mui/material/Box';
import { LinkButton } from '@/ui/LinkButton';
import { Sheet } from '@/ui/Sheet';
import { Stave } from '@/ui/Stave';

/** The stave of an instrument, and the ways on from it. */
export function StaveSheet({ instrument }: { instrument: Instrument }) {
  const { tag, body, configuration } = instrument;
  return (
    <Sheet
      title="Signal stave"
      aside={
        <>
          the rail of pressure ends where the body does: {formatPlain(body.lowerRangeLimit)} …{' '}
          {formatPlain(body.upperRangeLimit)} {PRESSURE_UNITS[body.unit].label}
        </>
      }
    >
      <Stave body={body} configuration={configuration} spacing={76} />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', mt: 1 }}>
        <LinkButton href={`/instruments/${tag}/edit`}>Change the entry</LinkButton>
        <LinkButton href={`/instruments/${tag}/configure`}>New configuration</LinkButton>
        <LinkButton href={`/instruments/${tag}/history`}>History and interval</LinkButton>
        <LinkButton href={`/instruments/${tag}/versions`}>Compare versions</LinkButton>
        <LinkButton href={`/instruments/${tag}/set-up`}>Set-up walk</LinkButton>
        <LinkButton href={`/instruments/${tag}/references`}>Which reference fits</LinkButton>
        <LinkButton href={`/instruments/labels?ids=${instrument.id}&sheet=single`} isFile>
          Label (PDF)
        </LinkButton>
      </Box>
    </Sheet>
  );
}
