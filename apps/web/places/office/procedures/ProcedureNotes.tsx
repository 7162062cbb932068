import type { ProcedureContent } from '@barys/store/registers';
import Typography from '@mui/material/Typography';
import { Caution } from '@/places/jobs/Caution';
import { STAGE_WORD } from '@/places/jobs/words';
import { Sheet } from '@/ui/Sheet';

/** What a procedure asks and warns of; nothing where it does neither. */
export function ProcedureNotes({ content: { questions, cautions } }: { content: ProcedureContent }) {
  return (
    <>
      {cautions.length > 0 && <Caution>{cautions.join(' ')}</Caution>}
      {questions.length > 0 && (
        <Sheet title="The procedure asks">
          {questions.map(({ stage, text }, index) => (
            <Typography key={index} variant="body2" sx={{ py: 0.25 }}>
              <strong>{STAGE_WORD[stage]}:</strong> {text}
            </Typography>
          ))}
        </Sheet>
      )}
    </>
  );
}
