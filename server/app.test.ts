import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { get as request, type IncomingHttpHeaders } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { brotliCompressSync, gzipSync } from 'node:zlib';
import { createApp } from './app';

const PAGE = '<title>Chaffinch</title>';
const SCRIPT = 'void 0;';
const BESIDE = 'not of the app';

interface Answer {
  status: number;
  headers: IncomingHttpHeaders;
  body: Buffer;
}

type Get = (place: string, headers?: Record<string, string>) => Promise<Answer>;

/** A built app below a directory of some name, served; its answers by path, which is sent as it is written. */
async function served(name: string, ask: (get: Get, directory: string) => Promise<void>): Promise<void> {
  const directory = path.join(mkdtempSync(path.join(tmpdir(), 'chaffinch-')), name, 'app');
  mkdirSync(path.join(directory, '_expo'), { recursive: true });
  writeFileSync(path.join(directory, 'index.html'), PAGE);
  writeFileSync(path.join(directory, '_expo', 'page.abc.js'), SCRIPT);
  writeFileSync(path.join(directory, '_expo', 'page.abc.js.br'), brotliCompressSync(SCRIPT));
  writeFileSync(path.join(directory, '_expo', 'page.abc.js.gz'), gzipSync(SCRIPT));
  writeFileSync(path.join(directory, '..', 'beside.js'), BESIDE);
  const server = createApp(directory).listen(0);
  const { port } = server.address() as AddressInfo;
  const get: Get = (place, headers = {}) =>
    new Promise((done, fail) => {
      request({ port, path: place, headers, agent: false }, (answer) => {
        const parts: Buffer[] = [];
        answer.on('data', (part: Buffer) => parts.push(part));
        answer.on('end', () =>
          done({ status: answer.statusCode!, headers: answer.headers, body: Buffer.concat(parts) }),
        );
      }).on('error', fail);
    });
  try {
    await ask(get, directory);
  } finally {
    server.close();
  }
}

test.each(['plain', '.hidden'])('every place answers with the page, under a directory named %s', async (name) => {
  await served(name, async (get) => {
    for (const place of ['/', '/pads', '/launch', '/anything/else']) {
      const { status, body } = await get(place);
      expect([place, status, body.toString()]).toEqual([place, 200, PAGE]);
    }
  });
});

test('files with a hash are kept for good, others are asked for and told when they are the same', async () => {
  await served('plain', async (get) => {
    expect((await get('/_expo/page.abc.js')).headers['cache-control']).toMatch(/max-age=31536000, immutable/);
    const { headers } = await get('/');
    expect(headers['cache-control']).toBe('public, max-age=0');
    expect((await get('/', { 'If-None-Match': headers.etag! })).status).toBe(304);
  });
});

test('a missing file is told as one', async () => {
  await served('plain', async (get) => {
    for (const place of ['/missing.js', '/_expo/missing.js', '/workers/missing.js']) {
      const { status, body } = await get(place);
      expect([place, status, body.toString()]).toEqual([place, 404, 'Not found']);
    }
  });
});

test('nothing beside the app is sent, however it is asked for', async () => {
  await served('plain', async (get) => {
    for (const place of ['/../beside.js', '/%2e%2e/beside.js', '/%2e%2e%2fbeside.js', '/_expo/../../beside.js']) {
      expect((await get(place)).body.toString()).not.toContain(BESIDE);
    }
  });
});

test('built anew while it serves, it goes on: what is gone is not found', async () => {
  await served('plain', async (get, directory) => {
    rmSync(path.join(directory, '_expo'), { recursive: true });
    for (const accepted of ['br', 'identity']) {
      expect((await get('/_expo/page.abc.js', { 'Accept-Encoding': accepted })).status).toBe(404);
    }
    writeFileSync(path.join(directory, 'index.html'), 'anew');
    expect((await get('/pads')).body.toString()).toBe('anew');
  });
});

test('what was compressed at build time is sent as it lies there, to who takes it', async () => {
  await served('plain', async (get) => {
    const sent = async (accepted: string) => {
      const { headers, body } = await get('/_expo/page.abc.js', { 'Accept-Encoding': accepted });
      expect([headers['content-type'], headers.vary]).toEqual([
        expect.stringContaining('text/javascript'),
        'Accept-Encoding',
      ]);
      return [headers['content-encoding'], body];
    };
    expect(await sent('gzip, deflate, br')).toEqual(['br', brotliCompressSync(SCRIPT)]);
    expect(await sent('gzip')).toEqual(['gzip', gzipSync(SCRIPT)]);
    expect(await sent('identity')).toEqual([undefined, Buffer.from(SCRIPT)]);
  });
});

test('an address that no one can read is a bad request, and says nothing of the server', async () => {
  await served('plain', async (get) => {
    for (const place of ['/%', '/%ff', '/%c0%ae/', '/a%zz.js']) {
      const { status, headers, body } = await get(place);
      expect([place, status, body.toString()]).toEqual([place, 400, 'Bad request']);
      expect(headers['content-type']).toMatch(/^text\/plain/);
    }
  });
});

test('nothing may come from elsewhere or go there, and the browser lends only what the instrument uses', async () => {
  await served('plain', async (get) => {
    const { headers } = await get('/');
    const policy = headers['content-security-policy'];
    for (const rule of ["default-src 'self'", "script-src 'self'", "base-uri 'none'", "form-action 'none'"]) {
      expect(policy).toContain(rule);
    }
    expect(headers['permissions-policy']).toMatch(/midi=\(self\).*camera=\(\)/);
    expect(headers['x-powered-by']).toBeUndefined();
  });
});

test('it says that it is well', async () => {
  await served('plain', async (get) => {
    const { status, headers, body } = await get('/health');
    expect([status, headers['cache-control'], body.toString()]).toEqual([200, 'no-store', 'ok']);
  });
});
