import type { ReactNode } from 'react';
import { PLANNING_PAGES } from '@/places/planning/pages';
import { TabLinks } from '@/ui/TabLinks';

export default function PlanningLayout({ children }: { children: ReactNode }) {
  return (
    <>
      <TabLinks name="Planning" pages={PLANNING_PAGES} />
      {children}
    </>
  );
}
