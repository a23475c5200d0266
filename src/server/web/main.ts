import { randomBytes } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import next from 'next';
import { problemJson } from '../http/problem-json';
import { programRoot } from '../places';
import { allowedHosts, FORGED_HEADERS, refusalAt } from './gate';
import { contentSecurityPolicy, SECURITY_HEADERS } from './headers';
import { Spread } from './spread';

/*
 * The web server: a gate that every request passes first, whatever it asks for, and behind it the
 * application. The gate looks at the name by which it was asked, drops what only a proxy may say,
 * and gives every answer its headers.
 */

const dev = process.argv.includes('--dev');
const port = Number(process.env.PORT ?? 4180);
const hostname = process.env.VISTUM_LISTEN ?? '127.0.0.1';
const hosts = allowedHosts(port, process.env.VISTUM_HOSTS);
/**
 * Time for a whole request to arrive, in milliseconds: enough for a piece of a recording on a slow
 * line.
 */
const REQUEST_MS = 10 * 60_000;
const HEADERS_MS = 20_000;
/**
 * An idle connection stays open so long, in milliseconds: longer than browsers and proxies keep
 * theirs for the next request, which would else meet one that was just closed.
 */
const IDLE_MS = 75_000;

const application = next({ dev, dir: programRoot(), hostname, port });
await application.prepare();
const answer = application.getRequestHandler();
const upgrade = application.getUpgradeHandler();

/**
 * Tabs that come back all at once, as after a restart, open their streams this far apart, in
 * milliseconds.
 */
const STREAMS_APART = 25;
const streams = new Spread(STREAMS_APART);
const isEventStream = ({ url, method }: IncomingMessage): boolean =>
  method === 'GET' && /^\/api\/projects\/[^/?]+\/events$/.test(url ?? '');

function refuse(request: IncomingMessage, response: ServerResponse): boolean {
  const refused = refusalAt(
    { method: request.method ?? 'GET', url: request.url ?? '/', host: request.headers.host },
    hosts,
  );
  if (!refused) return false;
  const { status, type, text } = problemJson(refused);
  // What else it sends is not read.
  response.writeHead(status, { 'content-type': type, connection: 'close' });
  response.end(text);
  return true;
}

const server = createServer((request, response) => {
  const nonce = randomBytes(16).toString('base64');
  const policy = contentSecurityPolicy(nonce, dev);
  for (const [name, value] of Object.entries(SECURITY_HEADERS)) response.setHeader(name, value);
  response.setHeader('content-security-policy', policy);
  if (refuse(request, response)) return;
  for (const name of FORGED_HEADERS) delete request.headers[name];
  // By these two the pages learn their nonce.
  request.headers['content-security-policy'] = policy;
  request.headers['x-nonce'] = nonce;
  if (isEventStream(request)) void streams.pass().then(() => answer(request, response));
  else void answer(request, response);
});
server.requestTimeout = REQUEST_MS;
server.headersTimeout = HEADERS_MS;
server.keepAliveTimeout = IDLE_MS;
server.on('upgrade', (request, socket, head) => {
  const { host } = request.headers;
  if (!dev || !host || !hosts.has(host.toLowerCase())) socket.destroy();
  else void upgrade(request, socket, head);
});
// The starter takes one that never got here for one that can't start.
server.listen(port, hostname, () => process.send?.('ready'));

const stop = () => {
  server.close(() => process.exit(0));
  // Open event streams would keep it from ending.
  server.closeAllConnections();
};
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, stop);
// The starter closes this channel when it dies, however it dies.
process.on('disconnect', stop);
