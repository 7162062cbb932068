import { keepReadings } from '@/places/jobs/run/keepReadings';
import { currentActor } from '@/server/person';
import { problemOfBody, UNPACKED } from '@/server/problem';

/** The plain server in front answers this by the same function, sooner (`front.ts`); here it is where Next runs alone. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  try {
    const kept = await keepReadings((await params).id, () => request.json(), currentActor);
    return Response.json(kept, { status: 201, headers: UNPACKED });
  } catch (error) {
    return problemOfBody(error);
  }
}
