'use client';
/** What is wrong, and the end of the lesson. */
import { CAUSES, type Cause } from '@barys/rig/practice';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import Typography from '@mui/material/Typography';
import { Sheet } from '@/ui/Sheet';

export function NameTab({
  causes,
  onChoose,
  onFinish,
  isPending,
  error,
}: {
  causes: readonly Cause[];
  onChoose: (causes: readonly Cause[]) => void;
  onFinish: () => void;
  isPending: boolean;
  error: string | null;
}) {
  return (
    <Sheet title="What is wrong">
      <Box role="group" aria-label="What is wrong">
        {(Object.keys(CAUSES) as Cause[]).map((cause) => (
          <FormControlLabel
            key={cause}
            sx={{ display: 'flex', '& .MuiCheckbox-root': { p: 0.5 } }}
            control={
              <Checkbox
                checked={causes.includes(cause)}
                onChange={(_event, isChecked) =>
                  onChoose(isChecked ? [...causes, cause] : causes.filter((one) => one !== cause))
                }
              />
            }
            label={CAUSES[cause]}
          />
        ))}
      </Box>
      <Button
        variant="contained"
        disabled={causes.length === 0 || isPending}
        onClick={onFinish}
        sx={{ mt: 1 }}
      >
        Finish and see the score
      </Button>
      {error !== null && (
        <Typography role="alert" sx={{ color: 'var(--outside)', mt: 1 }}>
          {error}
        </Typography>
      )}
    </Sheet>
  );
}
