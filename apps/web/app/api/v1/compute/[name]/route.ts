import { LONGEST_BODY, tooLong } from '@/compute/answer';
import { computeApart } from '@/compute/pool';
import { textWithin } from '@/server/body';
import { problemResponse } from '@/server/problem';

/** Computes and keeps nothing, so it asks nobody who they are. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ name: string }> },
): Promise<Response> {
  try {
    const text = await textWithin(request, LONGEST_BODY);
    if (text === null) return tooLong();
    return await computeApart({ name: (await params).name, text }, request.signal);
  } catch (error) {
    return problemResponse(error);
  }
}
