import { beatOfLink } from '@/places/bench/beat';
import { programToken } from '@/server/asked';
import { problemOfBody, UNPACKED } from '@/server/problem';

/** Where a link says what its instruments say, and hears what it has to do. */
export async function POST(request: Request): Promise<Response> {
  const token = programToken({ header: (name) => request.headers.get(name) });
  try {
    return Response.json(await beatOfLink(token, () => request.json()), { headers: UNPACKED });
  } catch (error) {
    return problemOfBody(error);
  }
}
