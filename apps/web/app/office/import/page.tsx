import { BringFile } from '@/imports/BringFile';

export const metadata = { title: 'Import' };

export default function ImportPage() {
  return <BringFile />;
}
