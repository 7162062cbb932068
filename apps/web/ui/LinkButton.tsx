'use client';
import Button from '@mui/material/Button';
import Link from 'next/link';
import type { ReactNode } from 'react';

/** A link that looks like a button, for pages that are rendered on the server. */
export function LinkButton({
  href,
  isMain = false,
  isFile = false,
  isDisabled = false,
  children,
}: {
  href: string;
  /** Whether it is the main thing to do on its page. */
  isMain?: boolean;
  /** Whether it leads to a file, which the router must not fetch as a page. */
  isFile?: boolean;
  /** Whether there is nothing there to go to. */
  isDisabled?: boolean;
  children: ReactNode;
}) {
  return (
    <Button
      {...(isFile ? { component: 'a' } : { component: Link, prefetch: false })}
      href={href}
      variant={isMain ? 'contained' : 'text'}
      disabled={isDisabled}
    >
      {children}
    </Button>
  );
}
