import { redirect } from 'next/navigation';
import { OFFICE_PAGES } from '@/places/office/pages';

export default function OfficePage() {
  redirect(OFFICE_PAGES[0].path);
}
