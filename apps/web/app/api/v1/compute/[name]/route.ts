import { CALCULATIONS } from '@/compute';
import { answerCalculation } from '@/compute/answer';
import { problemResponse } from '@/server/problem';

/** Computes and keeps nothing, so it asks nobody who they are. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ name: string }> },
): Promise<Response> {
  try {
    return await answerCalculation(CALCULATIONS.get((await params).name), request);
  } catch (error) {
    return problemResponse(error);
  }
}
