/** Codes on paper that open a page of this installation. */
import { toDataURL } from 'qrcode';

/** The address under which whoever asked reaches Barys, which is where a code has to lead. */
export function originOf(request: Request): string {
  const url = new URL(request.url);
  const host = request.headers.get('host') ?? url.host;
  const proto = request.headers.get('x-forwarded-proto') ?? url.protocol.replace(':', '');
  return `${proto}://${host}`;
}

/** A code for an address, as a PNG in a data address. */
export const codeOf = (address: string): Promise<string> =>
  toDataURL(address, { margin: 0, errorCorrectionLevel: 'M', scale: 8 });
