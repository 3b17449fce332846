import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { createApp } from './app';

/** A built app below a directory of some name, served; its answers by path. */
async function served(name: string, ask: (get: (place: string) => Promise<Response>) => Promise<void>): Promise<void> {
  const directory = path.join(mkdtempSync(path.join(tmpdir(), 'chaffinch-')), name, 'app');
  mkdirSync(path.join(directory, '_expo'), { recursive: true });
  writeFileSync(path.join(directory, 'index.html'), '<title>Chaffinch</title>');
  writeFileSync(path.join(directory, '_expo', 'page.abc.js'), 'void 0;');
  const server = createApp(directory).listen(0);
  try {
    const { port } = server.address() as AddressInfo;
    await ask((place) => fetch(`http://localhost:${port}${place}`));
  } finally {
    server.close();
  }
}

test.each(['plain', '.hidden'])('every place answers with the page, under a directory named %s', async (name) => {
  await served(name, async (get) => {
    for (const place of ['/', '/pads', '/launch', '/anything/else']) {
      const answer = await get(place);
      expect([place, answer.status, await answer.text()]).toEqual([place, 200, '<title>Chaffinch</title>']);
    }
  });
});

test('files with a hash are kept for good, a missing file is told as one, and nothing may come from elsewhere', async () => {
  await served('plain', async (get) => {
    expect((await get('/_expo/page.abc.js')).headers.get('cache-control')).toMatch(/immutable/);
    expect((await get('/missing.js')).status).toBe(404);
    const policy = (await get('/')).headers.get('content-security-policy')!;
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("script-src 'self'");
  });
});
