'use client';
import Button from '@mui/material/Button';

/** Prints the page as it stands. */
export function PrintButton() {
  return <Button onClick={() => window.print()}>Print</Button>;
}
