// Serves the built pages and routes. In front of them: a path whose escapes cannot be read is answered with 400.
import { createServer } from 'node:http';
import next from 'next';

const host = process.env.ZG_HOST ?? '127.0.0.1';
const port = Number(process.env.ZG_PORT ?? 4173);

const app = next({ dev: false, hostname: host, port });
await app.prepare();
const handle = app.getRequestHandler();

const readable = (url) => {
  try {
    decodeURIComponent((url ?? '').split('?')[0]);
    return true;
  } catch {
    return false;
  }
};

const server = createServer((req, res) => {
  if (readable(req.url)) {
    void handle(req, res);
    return;
  }
  res.writeHead(400, { 'content-type': 'application/json', 'x-content-type-options': 'nosniff' });
  res.end(JSON.stringify({ error: 'the address holds an escape that cannot be read; check it' }));
});
server.on('error', (e) => {
  const why = e.code === 'EADDRINUSE' ? `port ${port} is in use; set ZG_PORT to another` : e.message;
  process.stderr.write(`zg: ${why}\n`);
  process.exit(1);
});
server.listen(port, host, () => {
  process.stdout.write(`\n  Zealous Grain: http://${host}:${port}   (Ctrl C stops it)\n\n`);
});
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => process.exit(0));
