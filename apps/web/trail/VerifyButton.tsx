'use client';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { Refused } from '@/ui/Refused';
import { useSubmit } from '@/ui/useSubmit';
import { verifyTrailAction } from './actions';

/** Checks the chain of the trail and says how it stands. */
export function VerifyButton() {
  const [told, setTold] = useState('');
  const { answer, isPending, submit } = useSubmit(async () => {
    const found = await verifyTrailAction();
    if (found.broken !== undefined)
      setTold(
        found.broken === null
          ? 'The chain is whole: no entry is missing or altered.'
          : `The chain is broken at entry ${found.broken}: it is missing, altered or out of its place.`,
      );
    return found;
  });
  return (
    <>
      <Typography role="status" variant="body2" sx={{ alignSelf: 'center', maxWidth: 420 }}>
        {told}
      </Typography>
      <Button variant="outlined" disabled={isPending} onClick={() => submit(undefined)}>
        {isPending ? 'Checking …' : 'Check the chain'}
      </Button>
      <Refused answer={answer} />
    </>
  );
}
