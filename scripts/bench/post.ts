/** A client that costs little itself: what is measured is the server, not `fetch`. */
import { Agent, request } from 'node:http';

const agent = new Agent({ keepAlive: true, maxSockets: 64 });

/** Sends JSON over a connection that stays open, as a browser's does. */
export function post(
  url: string,
  body: unknown,
  headers: Readonly<Record<string, string>> = {},
): Promise<{ readonly status: number; readonly text: string }> {
  return new Promise((resolve, reject) => {
    const sent = request(
      url,
      { method: 'POST', agent, headers: { 'content-type': 'application/json', ...headers } },
      (answer) => {
        let text = '';
        answer.setEncoding('utf8');
        answer.on('data', (chunk: string) => (text += chunk));
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, text }));
      },
    );
    sent.on('error', reject);
    sent.end(JSON.stringify(body));
  });
}
