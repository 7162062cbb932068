import type { ReactNode } from 'react';
import { INSIGHT_PAGES } from '@/places/insight/pages';
import { TabLinks } from '@/ui/TabLinks';

export default function InsightLayout({ children }: { children: ReactNode }) {
  return (
    <>
      <TabLinks name="Insight" pages={INSIGHT_PAGES} />
      {children}
    </>
  );
}
