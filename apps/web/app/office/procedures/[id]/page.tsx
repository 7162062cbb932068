import { findProcedure } from '@barys/store/registers';
import Stack from '@mui/material/Stack';
import Typography from '@mui/material/Typography';
import { ProcedureForm } from '@/places/office/procedures/ProcedureForm';
import { pointsInWords, ruleInWords, SCHOOL_WORD } from '@/places/office/procedures/words';
import { database } from '@/server/database';
import { showDate } from '@/server/dates';
import { orNotFound, pageId } from '@/server/orNotFound';
import { PageHead } from '@/ui/PageHead';
import { Sheet } from '@/ui/Sheet';

export const metadata = { title: 'A procedure' };

export default async function ProcedurePage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const { name, versions, ...rest } = await orNotFound(() => findProcedure(database(), pageId(id)));
  const [newest] = versions;
  if (newest === undefined) throw new Error(`procedure ${id} has no version`);
  return (
    <>
      <PageHead title={name} about={`Version ${newest.version} is in force: ${pointsInWords(newest)}`} />
      <Stack sx={{ gap: 1.5 }}>
        <ProcedureForm key={newest.version} procedure={{ ...rest, name, newest }} />
        <Sheet title="Versions">
          {versions.map((one) => (
            <Typography key={one.version} variant="body2" sx={{ py: 0.25 }}>
              <strong>{one.version}</strong>, {showDate(one.madeAt)}, {one.madeBy ?? 'Barys'}: {one.reason}.{' '}
              {pointsInWords(one)}; {ruleInWords(one.decisionRule)}; adjusted{' '}
              {SCHOOL_WORD[one.school ?? 'past the adjust limit']}.
            </Typography>
          ))}
        </Sheet>
      </Stack>
    </>
  );
}
