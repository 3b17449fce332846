import express, { type ErrorRequestHandler, type Express, type RequestHandler } from 'express';
import expressStaticGzip from 'express-static-gzip';
import helmet from 'helmet';
import path from 'node:path';

const YEAR_MS = 365 * 24 * 3600 * 1000;

/** Names below these have a content hash: what lies there never changes. */
const HASHED = ['_expo', 'assets'];

/** What the browser may do on this page: sound, controllers and, to sample, the microphone; nothing else. */
const PERMISSIONS = [
  ...['autoplay', 'fullscreen', 'microphone', 'midi', 'screen-wake-lock'].map((feature) => `${feature}=(self)`),
  ...['camera', 'display-capture', 'geolocation', 'hid', 'payment', 'serial', 'usb'].map((f) => `${f}=()`),
].join(', ');

/**
 * The server of the built app: static files and nothing else. Every unknown path gets the page, whose router knows the places.
 * Files that were compressed when the app was built (`page.js.br`, `page.js.gz`) are sent so to who takes it.
 * @param directory the exported app; what was compressed is looked up once, here
 */
export function createApp(directory: string): Express {
  const app = express();
  app.use(policies());
  app.get('/health', (_request, response) => void response.set('Cache-Control', 'no-store').type('text').send('ok'));
  app.use(onlyReadable);
  for (const part of HASHED)
    app.use(`/${part}`, files(path.join(directory, part), { immutable: true, maxAge: YEAR_MS }));
  // The others are asked for every time, and answered with their tag alone while they are the same.
  app.use(files(directory, { maxAge: 0 }));
  app.get(/\.\w+$/, notFound);
  app.get('/{*place}', (_request, response) =>
    // With a root: without one a directory whose name begins with a dot anywhere above would be taken for a hidden file.
    response.sendFile('index.html', { root: directory, dotfiles: 'allow' }),
  );
  app.use(notFound);
  app.use(failed);
  return app;
}

function files(directory: string, serveStatic: { immutable?: boolean; maxAge: number }): RequestHandler {
  return expressStaticGzip(directory, { enableBrotli: true, orderPreference: ['br', 'gz'], serveStatic });
}

const notFound: RequestHandler = (_request, response) => void response.status(404).type('text').send('Not found');

function policies(): RequestHandler[] {
  return [
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          // WebAssembly that comes with the app: encoders.
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          // The interface library writes its styles into the page.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          workerSrc: ["'self'"],
          objectSrc: ["'none'"],
          frameAncestors: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'none'"],
        },
      },
    }),
    (_request, response, next) => {
      response.setHeader('Permissions-Policy', PERMISSIONS);
      next();
    },
  ];
}

/** An address with a per-cent sign that begins no character is a bad request, and no place. */
const onlyReadable: RequestHandler = (request, response, next) => {
  try {
    decodeURIComponent(request.path);
    next();
  } catch {
    response.status(400).type('text').send('Bad request');
  }
};

/** Says nothing of the server's inside: no stack, no path. It is written where the server was started. */
const failed: ErrorRequestHandler = (error, _request, response, next) => {
  console.error(error);
  if (response.headersSent) return next(error);
  response.status(500).type('text').send('The server failed');
};
