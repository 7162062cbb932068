'use client';
import Button from '@mui/material/Button';
import Link from 'next/link';
import type { ReactNode } from 'react';

/** A link that looks like a button, for pages that are rendered on the server. */
export function LinkButton({
  href,
  isMain = false,
  children,
}: {
  href: string;
  /** Whether it is the main thing to do on its page. */
  isMain?: boolean;
  children: ReactNode;
}) {
  return (
    <Button component={Link} href={href} variant={isMain ? 'contained' : 'text'}>
      {children}
    </Button>
  );
}
