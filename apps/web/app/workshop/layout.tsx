import type { ReactNode } from 'react';
import { WorkshopTabs } from '@/places/workshop/WorkshopTabs';

export default function WorkshopLayout({ children }: { children: ReactNode }) {
  return (
    <>
      <WorkshopTabs />
      {children}
    </>
  );
}
