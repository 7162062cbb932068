'use client';
import { usePathname } from 'next/navigation';
import { TabLinks } from '@/ui/TabLinks';
import { groupOf } from './tools';

/** The way back to all tools, and to those of the same group. */
export function WorkshopTabs() {
  const group = groupOf(usePathname());
  if (group === undefined) return null;
  return (
    <TabLinks
      name={`Workshop, ${group.name}`}
      pages={[{ path: '/workshop', name: 'All tools', isExact: true }, ...group.tools]}
    />
  );
}
