import { headers } from 'next/headers';
import { ADDRESS_HEADER } from './asked';

/** Where the request in hand comes from. */
export const senderAddress = async (): Promise<string> => (await headers()).get(ADDRESS_HEADER) ?? 'unknown';
