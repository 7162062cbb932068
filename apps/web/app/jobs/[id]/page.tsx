import { redirect } from 'next/navigation';
import { loadJobOr404 } from '@/places/jobs/load';

/** A job's address leads to where the job stands. */
export default async function JobPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  const job = await loadJobOr404(id);
  redirect(`/jobs/${job.id}/${job.signedAt === null && job.cancelledAt === null ? job.stage : 'record'}`);
}
