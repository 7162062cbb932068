import { z } from 'zod';

/** The number in a route's address, as `[id]`; anything else is refused as unprocessable. */
export const routeId = async (params: Promise<{ id: string }>): Promise<number> =>
  z.coerce
    .number()
    .int()
    .positive()
    .parse((await params).id);
