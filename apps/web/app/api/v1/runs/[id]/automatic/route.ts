import { automaticSeen } from '@/places/jobs/run/automatic/load';

/** Benches, and where a run stands that goes by itself at one of them. */
export const GET = async (
  _request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> => automaticSeen((await params).id);
