import { beatOfLink } from '@/places/bench/beat';
import { programToken } from '@/server/asked';

/** Where a link says what its instruments say, and hears what it has to do. */
export const POST = (request: Request): Promise<Response> =>
  beatOfLink(programToken({ header: (name) => request.headers.get(name) }), () => request.json());
