import type { ReactNode } from 'react';
import { OFFICE_PAGES } from '@/places/office/pages';
import { TabLinks } from '@/ui/TabLinks';

export default function OfficeLayout({ children }: { children: ReactNode }) {
  return (
    <>
      <TabLinks name="Office" pages={OFFICE_PAGES} />
      {children}
    </>
  );
}
