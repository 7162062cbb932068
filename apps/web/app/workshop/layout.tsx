import type { ReactNode } from 'react';
import { ToolTabs } from '@/workshop/ToolTabs';

export default function WorkshopLayout({ children }: { children: ReactNode }) {
  return (
    <>
      <ToolTabs />
      {children}
    </>
  );
}
