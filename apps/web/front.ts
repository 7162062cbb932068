/**
 * What the plain server answers before Next: readings, which people wait for between two digits, and the words of links, which
 * come several times a second. Next takes some 8 ms of
 * processor time for a request of any kind, three times what keeping a reading takes. Bundled beside the application; the
 * guards and the acts are those of Next's own routes.
 */
import { StoreError } from '@barys/store/db';
import { personOfToken, SEEN_EVERY_MS, type Actor, type Person } from '@barys/store/people';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { json } from 'node:stream/consumers';
import { beatOfLink } from './places/bench/beat';
import { keepReadings } from './places/jobs/run/keepReadings';
import { askedOfNode, programToken, type Asked } from './server/asked';
import { database } from './server/database';
import { DATA_POLICY, guard, lookUp, secureHeaders } from './server/guards';
import { moment } from './server/moment';
import { problemOfBody, UNPACKED } from './server/problem';

const BEAT = '/api/v1/link/beat';
const READINGS = /^\/api\/v1\/runs\/([^/]+)\/readings$/;

/** Who the guard saw last by a session: what writes a reading makes sure of the session in the same statement. */
const remembered = new Map<string, { readonly person: Person; readonly until: number }>();
const MOST_REMEMBERED = 1000;

function rememberedBy({ session }: Asked): Person | null {
  const last = session === undefined ? undefined : remembered.get(session);
  return last !== undefined && last.until > Date.now() ? last.person : null;
}

function remember({ session }: Asked, person: Person | null): void {
  if (session === undefined || person === null) return;
  if (remembered.size >= MOST_REMEMBERED) remembered.clear();
  remembered.set(session, { person, until: Date.now() + SEEN_EVERY_MS });
}

async function actorOf(asked: Asked, person: Person | null, isSure: boolean): Promise<Actor> {
  const token = programToken(asked);
  const who = token === null ? person : await personOfToken(database(), token, 'write', new Date());
  if (who === null) throw new StoreError({ code: 'unknown-person' });
  if (token !== null) return { personId: who.id, ...moment(), via: 'program' };
  const actor: Actor = { personId: who.id, ...moment(), via: 'session' };
  return isSure || asked.session === undefined ? actor : { ...actor, session: asked.session };
}

/** What is answered where all went well: a line, as JSON. */
interface Said {
  readonly status: number;
  readonly body: unknown;
}

interface Work {
  /** Whether it makes sure of a session by itself. */
  readonly makesSure: boolean;
  readonly act: (asked: Asked, person: Person | null, isSure: boolean) => Promise<Said>;
}

/** What a request asks for here; null where it is Next's. */
function workOf(request: IncomingMessage): Work | null {
  if (request.method !== 'POST') return null;
  const path = request.url?.split('?')[0] ?? '';
  if (path === BEAT)
    return {
      makesSure: false,
      act: async (asked) => ({
        status: 200,
        body: await beatOfLink(programToken(asked), () => json(request)),
      }),
    };
  const runId = READINGS.exec(path)?.[1];
  if (runId === undefined) return null;
  return {
    makesSure: true,
    act: async (asked, person, isSure) => ({
      status: 201,
      body: await keepReadings(
        runId,
        () => json(request),
        () => actorOf(asked, person, isSure),
      ),
    }),
  };
}

function send(
  response: ServerResponse,
  status: number,
  headers: Readonly<Record<string, string>>,
  text: string,
): void {
  response.writeHead(status, {
    ...headers,
    ...secureHeaders(),
    'content-security-policy': DATA_POLICY,
    'content-length': Buffer.byteLength(text),
  });
  response.end(text);
}

const refuse = async (response: ServerResponse, refused: Response): Promise<void> =>
  send(response, refused.status, Object.fromEntries(refused.headers), await refused.text());

/** Why something was not done. Where nobody had made sure of a session, it is looked up now. */
async function refusalOf(asked: Asked, error: unknown, isSure: boolean): Promise<Response> {
  if (isSure) return problemOfBody(error);
  const { refused } = await lookUp(asked);
  if (refused !== null && asked.session !== undefined) remembered.delete(asked.session);
  return refused ?? problemOfBody(error);
}

async function answer(asked: Asked, response: ServerResponse, { makesSure, act }: Work): Promise<void> {
  const known = makesSure && programToken(asked) === null ? rememberedBy(asked) : null;
  const seen = await guard(asked, known);
  if (seen.refused !== null) return refuse(response, seen.refused);
  const isSure = known === null;
  if (isSure) remember(asked, seen.person);
  let said: Said;
  try {
    said = await act(asked, seen.person, isSure);
  } catch (error) {
    return refuse(response, await refusalOf(asked, error, isSure));
  }
  const headers = { 'content-type': 'application/json', ...UNPACKED };
  send(response, said.status, headers, JSON.stringify(said.body));
}

/** Answers what is answered here. @returns null where the request is Next's */
export function answerSoon(request: IncomingMessage, response: ServerResponse): Promise<void> | null {
  const work = workOf(request);
  return work === null ? null : answer(askedOfNode(request), response, work);
}
