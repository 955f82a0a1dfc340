// Serves the built pages and routes: on loopback for the machine itself, and where ZG_LISTEN asks for it to other devices, through the
// gate. In front of both: a path whose escapes cannot be read is answered with 400.
import { createServer } from 'node:http';
import next from 'next';
import { otherDevices, unmarked } from '../dist/gate.mjs';

const host = '127.0.0.1';
const port = Number(process.env.ZG_PORT ?? 4173);
const { ZG_LISTEN: place, ZG_TLS_CERT: cert, ZG_TLS_KEY: key, ZG_DATA: folder = 'data' } = process.env;

const say = (text) => process.stdout.write(`  ${text}\n`);
const refuse = (why) => {
  process.stderr.write(`zg: ${why}\n`);
  process.exit(1);
};

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

const answer = (req, res) => {
  if (readable(req.url)) {
    void handle(req, res);
    return;
  }
  res.writeHead(400, { 'content-type': 'application/json', 'x-content-type-options': 'nosniff' });
  res.end(JSON.stringify({ error: 'the address holds an escape that cannot be read; check it' }));
};

/** Listens, or says why not. */
const listen = (server, at, name) =>
  new Promise((done) => {
    server.on('error', (e) =>
      refuse(e.code === 'EADDRINUSE' ? `port ${at.port} is in use; set ${name} to another` : e.message),
    );
    server.listen(at.port, at.host, done);
  });

await listen(createServer(unmarked(answer)), { host, port }, 'ZG_PORT');
say(`\n  Zealous Grain: http://${host}:${port}   (Ctrl C stops it)\n`);

if (place) {
  if (Boolean(cert) !== Boolean(key)) refuse('https needs both ZG_TLS_CERT and ZG_TLS_KEY');
  try {
    const other = otherDevices({ place, tls: cert ? { cert, key } : null, folder, say }, answer);
    await listen(other.server, other, 'ZG_LISTEN');
    other.gate.announce();
  } catch (e) {
    refuse(e.message);
  }
}
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => process.exit(0));
