import { randomBytes } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createServer, type Server } from 'node:http';
import { hostname, networkInterfaces } from 'node:os';
import { join } from 'node:path';
import express, { type Express } from 'express';
import helmet from 'helmet';

/** The logbooks, each with a fixed port: a logbook belongs to its address, so a server never moves to another. */
export const PORTS = { own: 4810, demo: 4811, test: 4812, testDemo: 4813, benchmark: 4814 } as const;
export type ServedLogbook = keyof typeof PORTS;

/** What our server answers at `/inkpath`, so that a second start can tell it from a stranger. */
const GREETING = 'inkpath-log';

/**
 * The app as a web server: the build, under a strict content security policy.
 *
 * @param folder  the build, with an `index.html`
 * @param logbook written into the page, so that it knows which logbook it is
 * @param demoPort where the demo is served beside it, if it is
 * @param door    under which names it may be asked for: another name would be another logbook, or somebody else's page that has been pointed here
 */
export function appOf(folder: string, logbook: ServedLogbook, door: Door = {}, demoPort?: number): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use((_request, response, next) => {
    response.locals.nonce = randomBytes(16).toString('base64');
    next();
  });
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          workerSrc: ["'self'"],
          styleSrc: ["'self'", (_request, response) => `'nonce-${String((response as express.Response).locals.nonce)}'`],
          manifestSrc: ["'self'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          formAction: ["'none'"],
          baseUri: ["'none'"],
          frameAncestors: ["'none'"],
        },
      },
      // Everything comes from here, so the page can be isolated from all else; its clock is finer for it.
      crossOriginEmbedderPolicy: true,
      // Plain http on the loopback address: a promise of https would lock it out.
      strictTransportSecurity: false,
    }),
  );
  app.use((request, response, next) => {
    const { host = '' } = request.headers;
    const { leadTo, names } = door;
    const isAny = leadTo === undefined && names === undefined;
    if (isAny || host === leadTo || names?.has(nameOf(host))) next();
    else if (leadTo !== undefined) response.redirect(308, `http://${leadTo}${request.url}`);
    else
      response
        .status(421)
        .type('text')
        .send(`This server is not called ${nameOf(host).slice(0, 80)}. Start it with NAMES=${nameOf(host).slice(0, 80)} if it should be.`);
  });
  app.get('/inkpath', (_request, response) => {
    response.json({ name: GREETING, logbook, ...(demoPort !== undefined && { demoPort }) });
  });
  app.use('/assets', express.static(join(folder, 'assets'), { immutable: true, maxAge: '1y' }), (_request, response) => {
    response.sendStatus(404);
  });
  const page = (_request: express.Request, response: express.Response) => {
    // Read anew each time, so that a build made under a running server is served whole.
    const written = startPage(folder);
    if (written === undefined) {
      response.status(503).type('text').send(FOLDER_GONE);
      return;
    }
    const { nonce } = response.locals as { nonce: string };
    response
      .type('html')
      .set('Cache-Control', 'no-store')
      .send(
        written
          .replace('name="inkpath" content="own"', `name="inkpath" content="${/demo/i.test(logbook) ? 'demo' : 'own'}"`)
          .replace('name="inkpath-nonce" content=""', `name="inkpath-nonce" content="${nonce}"`),
      );
  };
  // Also by its name: it is kept for when there is no network, and has to be whole then.
  app.get('/index.html', page);
  app.use(express.static(folder, { index: false }));
  app.get('/{*path}', page);
  app.use(unreadable);
  return app;
}

const FOLDER_GONE =
  'The folder that this is served from was moved or taken away. End the server, and start it again from where the folder lies now.';

function startPage(folder: string): string | undefined {
  try {
    return readFileSync(join(folder, 'index.html'), 'utf8');
  } catch {
    return undefined;
  }
}

/** Under which names a server may be asked for. */
export interface Door {
  /** The one name, with its port, that others are led to. */
  leadTo?: string | undefined;
  /** Names and addresses without port; any where neither is given. */
  names?: ReadonlySet<string> | undefined;
}

/** A host without its port: `[::1]:4810` is `::1`. */
const nameOf = (host: string): string =>
  host
    .replace(/:\d*$/, '')
    .replace(/^\[|\]$/g, '')
    .toLowerCase();

/** The names of this machine on its network, and those given to it: a server that listens to others answers to no more. */
function namesHere(host: string, given: readonly string[]): Set<string> {
  const isAny = host === '0.0.0.0' || host === '::';
  const addresses = Object.values(networkInterfaces()).flatMap((each = []) => each.map(({ address }) => address.replace(/%.*$/, '')));
  return new Set(
    [host, ...given, ...(isAny ? ['localhost', hostname(), `${hostname()}.local`, ...addresses] : [])].map((name) => name.toLowerCase()),
  );
}

/** An address that cannot be read is answered in a sentence. */
const unreadable: express.ErrorRequestHandler = (error: unknown, _request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const status = (error as { status?: unknown }).status;
  const code = typeof status === 'number' && status >= 400 && status < 500 ? status : 500;
  response
    .status(code)
    .type('text')
    .send(
      code === 500
        ? 'The server failed at this. Build it anew, and start it again.'
        : 'This address cannot be read. Go to the start page instead.',
    );
};

export type ServeOutcome =
  | { state: 'listening'; address: string; close: () => Promise<void> }
  /** Our server already answers there. */
  | { state: 'already there'; address: string }
  | { state: 'refused'; why: string };

/**
 * Serves a logbook at its address, and nowhere else.
 *
 * @param host  address to listen on; the loopback address by default
 * @param demoPort where the demo is served beside it, if it is
 * @param names further names under which it may be asked for: those of a proxy before it, or of this machine on its network
 */
export async function serve(
  folder: string,
  logbook: ServedLogbook,
  {
    host = '127.0.0.1',
    names = [],
    demoPort,
  }: { host?: string | undefined; names?: readonly string[]; demoPort?: number | undefined } = {},
): Promise<ServeOutcome> {
  const port = PORTS[logbook];
  const address = `http://${host}:${port}/`;
  const isLoopback = host === '127.0.0.1';
  const door = isLoopback ? { leadTo: `${host}:${port}`, names: new Set(names) } : { names: namesHere(host, names) };
  const server = createServer(appOf(folder, logbook, door, demoPort));
  try {
    await listen(server, port, host);
  } catch (error) {
    const code = (error as NodeJS.ErrnoException).code ?? String(error);
    if (code === 'EADDRINUSE' && (await isOurs(address, logbook))) return { state: 'already there', address };
    const why =
      code === 'EADDRINUSE'
        ? `Port ${port} is taken by another program; close it and start again. The logbook belongs to ${address}, so no other port is tried.`
        : `Cannot listen on ${address} (${code}). Check the HOST given, and start again.`;
    return { state: 'refused', why };
  }
  return { state: 'listening', address, close: () => close(server) };
}

function listen(server: Server, port: number, host: string): Promise<void> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, host, resolve);
  });
}

/** How long what is under way may take once the server is to end, in milliseconds. */
const LONGEST_CLOSE = 500;

/** Stops taking requests, and ends once those under way are answered. */
function close(server: Server): Promise<void> {
  return new Promise((resolve) => {
    server.close(() => {
      resolve();
    });
    server.closeIdleConnections();
    // Whoever is slow to take an answer keeps nobody waiting.
    setTimeout(() => {
      server.closeAllConnections();
    }, LONGEST_CLOSE).unref();
  });
}

async function isOurs(address: string, logbook: ServedLogbook): Promise<boolean> {
  try {
    const answer = (await (await fetch(`${address}inkpath`, { signal: AbortSignal.timeout(2000) })).json()) as {
      name?: string;
      logbook?: string;
    };
    return answer.name === GREETING && answer.logbook === logbook;
  } catch {
    return false;
  }
}
