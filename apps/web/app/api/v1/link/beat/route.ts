import { beatOfLink } from '@/places/bench/beat';

/** Where a link says what its instruments say, and hears what it has to do. */
export const POST = (request: Request): Promise<Response> => beatOfLink(request);
