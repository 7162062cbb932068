import { listBenches } from '@barys/store/benches';
import { BenchDesk } from '@/places/bench/BenchDesk';
import { database } from '@/server/database';
import { PageHead } from '@/ui/PageHead';

export const metadata = { title: 'Bench' };

export default async function BenchPage() {
  return (
    <>
      <PageHead title="Bench" about="What is connected now, and what it says." />
      <BenchDesk first={await listBenches(database(), new Date())} />
    </>
  );
}
