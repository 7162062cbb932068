import { BringFile } from '@/places/office/imports/BringFile';

export const metadata = { title: 'Import' };

export default function ImportPage() {
  return <BringFile />;
}
