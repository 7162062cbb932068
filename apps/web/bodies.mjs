// @ts-check
/** What is refused before a byte of it is read: an address that cannot be read, and too large a request. */

const MB = 1024 * 1024;

/** Where files come with a form, for those who are signed in: imports, photographs, certificates. */
const FILES = /** @type {const} */ ([
  [/^\/office\/import(\/|$)/, 66 * MB],
  [/^\/(jobs|references)\//, 12 * MB],
]);
/** Calculations take runs with many readings, from anybody. */
const COMPUTE = /^\/api\/v1\/compute\//;
const COMPUTE_MOST = 4 * MB;
const SIGNED_IN_MOST = 2 * MB;
const STRANGER_MOST = 256 * 1024;

/**
 * @param {string} path without its query
 * @param {boolean} isSignedIn whether the request brings a session or a token; whether that is valid is looked at later
 */
export function mostBytes(path, isSignedIn) {
  if (COMPUTE.test(path)) return COMPUTE_MOST;
  if (!isSignedIn) return STRANGER_MOST;
  return FILES.find(([pattern]) => pattern.test(path))?.[1] ?? SIGNED_IN_MOST;
}

/** Whether an address is one at all; half a character would end in an error of Next's. @param {string} path */
function isReadable(path) {
  try {
    return decodeURIComponent(path).length > 0;
  } catch {
    return false;
  }
}

/**
 * Why a request is refused before it is read: status and words, or null where it is not.
 * @param {import('node:http').IncomingMessage} request
 * @returns {{ status: number, detail: string } | null}
 */
export function refusalOf(request) {
  const {
    'content-length': length,
    'transfer-encoding': encoding,
    cookie = '',
    authorization,
  } = request.headers;
  const path = (request.url ?? '/').split('?')[0] ?? '/';
  if (!isReadable(path))
    return { status: 400, detail: 'This address cannot be read: a part of it is cut off.' };
  if (length === undefined && encoding === undefined) return null;
  if (length === undefined)
    return { status: 411, detail: 'Say how long the request is: Barys reads none without a length.' };
  const isSignedIn = authorization !== undefined || /(^|; )barys-session=/.test(cookie);
  const most = mostBytes(path, isSignedIn);
  if (Number(length) <= most) return null;
  return {
    status: 413,
    detail: `This is too large: at most ${Math.floor(most / 1024)} kB are taken here. Nothing was kept.`,
  };
}
