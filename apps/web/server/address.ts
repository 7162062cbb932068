import { headers } from 'next/headers';

/** Set by the server for every request, over whatever the sender wrote there. */
export const ADDRESS_HEADER = 'x-barys-address';

/** Where the request in hand comes from. */
export const senderAddress = async (): Promise<string> => (await headers()).get(ADDRESS_HEADER) ?? 'unknown';
