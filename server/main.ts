import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { createApp } from './app';

const DEFAULT_PORT = 4173;

/** Serves the built app beside this file on PORT, and says so; a port that cannot be had gets one clear sentence. */
export function serve(): void {
  const asked = process.env.PORT ?? String(DEFAULT_PORT);
  const port = Number(asked);
  if (!Number.isInteger(port) || port < 1 || port > 65535) {
    console.error(`PORT is “${asked}”; it must be a whole number from 1 to 65535.`);
    process.exit(1);
  }
  const directory = path.join(path.dirname(fileURLToPath(import.meta.url)), 'app');
  const server = createApp(directory).listen(port, (error?: Error) => {
    if (!error) console.log(`Chaffinch is at http://localhost:${port}`);
  });
  server.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code === 'EADDRINUSE') {
      console.error(`Port ${port} is taken by another program. Choose another one: PORT=${port + 1} npm start`);
    } else if (error.code === 'EACCES') {
      console.error(`Port ${port} needs rights that this account has not. Choose one above 1023: PORT=4173 npm start`);
    } else {
      console.error(`The server could not start: ${error.message}`);
    }
    process.exit(1);
  });
}
