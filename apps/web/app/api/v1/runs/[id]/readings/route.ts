import { keepReadings } from '@/places/jobs/run/keepReadings';
import { currentActor } from '@/server/person';

/** The plain server in front answers this by the same function, sooner (`front.ts`); here it is where Next runs alone. */
export async function POST(
  request: Request,
  { params }: { params: Promise<{ id: string }> },
): Promise<Response> {
  return keepReadings((await params).id, () => request.json(), currentActor);
}
