import { requestSeen } from '@/places/bench/request';

/** What came of something that was asked of an instrument at a bench. */
export const GET = async (
  _request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> => requestSeen((await params).id);
