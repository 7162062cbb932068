import type { ReactNode } from 'react';
import { TabLinks } from '@/ui/TabLinks';
import { TOOLS } from '@/places/workshop/tools';

export default function WorkshopLayout({ children }: { children: ReactNode }) {
  return (
    <>
      <TabLinks name="Tools of the workshop" pages={TOOLS} />
      {children}
    </>
  );
}
