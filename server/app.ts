import compression from 'compression';
import express, { type Express } from 'express';
import helmet from 'helmet';
import path from 'node:path';

const YEAR_MS = 365 * 24 * 3600 * 1000;

/**
 * The server of the built app: static files and nothing else. Every unknown path gets the page, whose router knows the places.
 * @param directory the exported app
 */
export function createApp(directory: string): Express {
  const app = express();
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          // The interface library writes its styles into the page.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          workerSrc: ["'self'"],
          objectSrc: ["'none'"],
          frameAncestors: ["'self'"],
        },
      },
    }),
  );
  app.use(compression());
  // Names with a content hash never change; the others are asked for every time.
  app.use('/_expo', express.static(path.join(directory, '_expo'), { immutable: true, maxAge: YEAR_MS }));
  app.use('/assets', express.static(path.join(directory, 'assets'), { immutable: true, maxAge: YEAR_MS }));
  app.use(express.static(directory, { maxAge: 0 }));
  app.get(/\.\w+$/, (_request, response) => void response.status(404).type('text').send('Not found'));
  app.get('/{*place}', (_request, response) =>
    // With a root: without one a directory whose name begins with a dot anywhere above would be taken for a hidden file.
    response.sendFile('index.html', { root: directory, dotfiles: 'allow' }),
  );
  return app;
}
