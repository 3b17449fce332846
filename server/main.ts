import type { Server } from 'node:http';
import { networkInterfaces } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { createApp } from './app';

const DEFAULT_PORT = 4173;
/** Only this machine. Another one is let in by HOST=0.0.0.0, and then needs https for sound. */
const DEFAULT_HOST = 'localhost';

/** Serves the built app beside this file on HOST and PORT, and says where; what cannot be had gets one clear sentence. */
export function serve(): void {
  const host = process.env.HOST || DEFAULT_HOST;
  const port = portAsked();
  const directory = path.join(path.dirname(fileURLToPath(import.meta.url)), 'app');
  const server = createApp(directory).listen(port, host, (error?: Error) => {
    if (!error) console.log(whereItIs(host, port));
  });
  server.on('error', (error: NodeJS.ErrnoException) => {
    console.error(trouble(error, host, port));
    process.exit(1);
  });
  stopGracefully(server);
}

function portAsked(): number {
  const asked = process.env.PORT ?? String(DEFAULT_PORT);
  const port = Number(asked);
  if (Number.isInteger(port) && port >= 1 && port <= 65535) return port;
  console.error(`PORT is “${asked}”; it must be a whole number from 1 to 65535.`);
  process.exit(1);
}

/** The addresses at which the app is, one to a line. */
function whereItIs(host: string, port: number): string {
  if (host !== '0.0.0.0' && host !== '::') return `Chaffinch is at http://${host}:${port}`;
  const others = Object.values(networkInterfaces())
    .flatMap((list) => list ?? [])
    .filter(({ family, internal }) => family === 'IPv4' && !internal)
    .map(({ address }) => `  http://${address}:${port}`);
  return [
    `Chaffinch is at http://localhost:${port}, and for other devices at`,
    ...others,
    'Browsers give sound to localhost and to https alone: other devices need https before this server.',
  ].join('\n');
}

function trouble({ code, message }: NodeJS.ErrnoException, host: string, port: number): string {
  switch (code) {
    case 'EADDRINUSE':
      return `Port ${port} is taken by another program. Choose another one: PORT=${port + 1} npm start`;
    case 'EACCES':
      return `Port ${port} needs rights that this account has not. Choose one above 1023: PORT=${DEFAULT_PORT} npm start`;
    case 'EADDRNOTAVAIL':
    case 'ENOTFOUND':
      return `HOST is “${host}”, which is no address of this machine.`;
    default:
      return `The server could not start: ${message}`;
  }
}

/** Asked to stop, it answers what it has begun to answer, and frees its port at once. */
function stopGracefully(server: Server): void {
  for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP'] as const) {
    process.once(signal, () => {
      server.close(() => process.exit(0));
      server.closeIdleConnections();
    });
  }
}
