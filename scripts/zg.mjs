// What ./zg does, without a shell: builds what is missing, then serves, tests or plans. Node.js 20 or newer, nothing else.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';

const USAGE = `usage: zg demo     the sample shop, on http://127.0.0.1:4173
       zg start    your own data (data/, or ZG_DATA)
       zg test     all tests
       zg plan     plan a job without the interface; zg plan --help
       zg prove JOB.json FILE.nc ... --out DIR   prove programs as they lie in files
       zg backup FILE.tar.gz              the whole shop in one file, while it may be running
       zg restore FILE.tar.gz [--replace] a backup in the place of the shop, which must not be running`;

const root = path.resolve(import.meta.dirname, '..');
// The folder that a person calls from: files named on the command line are theirs.
const from = process.env.ZG_FROM ?? process.cwd();
process.chdir(root);
const env = { ...process.env, NEXT_TELEMETRY_DISABLED: '1' };

const say = (text) => process.stderr.write(`${text}\n`);

/** Runs a program to its end; its status becomes ours when it fails. */
function run(command, args, more = {}) {
  const r = spawnSync(command, args, { stdio: ['inherit', 2, 2], env, ...more });
  if (r.error) say(`zg: ${command} could not be started (${r.error.message})`);
  if (r.status !== 0) process.exit(r.status ?? 1);
}
/** The same for a package's own program, whatever the system calls it. */
const tool = (file, args, more) => run(process.execPath, [path.join('node_modules', file), ...args], more);
const npm = (args) =>
  process.env.npm_execpath
    ? run(process.execPath, [process.env.npm_execpath, ...args])
    : run(process.platform === 'win32' ? 'npm.cmd' : 'npm', args, { shell: process.platform === 'win32' });

const readOr = (file) => (existsSync(file) ? readFileSync(file, 'utf8') : null);

/** Installs the packages of the lock file, when it has changed since they were installed. */
function needPackages() {
  const lock = readFileSync('package-lock.json', 'utf8');
  if (readOr('node_modules/.zg-lock') === lock) return;
  say('installing packages');
  npm(['ci', '--no-audit', '--no-fund']);
  writeFileSync('node_modules/.zg-lock', lock);
}

function filesUnder(place) {
  if (!statSync(place, { throwIfNoEntry: false })?.isDirectory()) return existsSync(place) ? [place] : [];
  return readdirSync(place)
    .sort()
    .flatMap((n) => filesUnder(path.join(place, n)));
}

/** A sum over all that is built from, so that nothing is built twice. */
function sourceSum() {
  const places = [
    'src',
    'demo',
    'scripts',
    'package.json',
    'package-lock.json',
    'next.config.ts',
    'postcss.config.mjs',
    'tsconfig.json',
  ];
  const hash = createHash('sha256');
  for (const f of places.flatMap(filesUnder))
    if (path.basename(f) !== 'generated.ts') hash.update(`${f.replaceAll('\\', '/')}\0`).update(readFileSync(f));
  return hash.digest('hex');
}

function built(mark, make) {
  const sum = sourceSum();
  if (readOr(mark) === sum) return;
  make();
  mkdirSync('dist', { recursive: true });
  writeFileSync(mark, sum);
}

/** The kernels and the worker threads; enough for the command line. */
function needWorkers() {
  needPackages();
  built('dist/.zg-workers', () => {
    run(process.execPath, ['scripts/build-wasm.mjs']);
    run(process.execPath, ['scripts/build-workers.mjs']);
  });
}

function needBuild() {
  needWorkers();
  built('dist/.zg-build', () => {
    say('building, a minute or two');
    tool('next/dist/bin/next', ['build']);
  });
}

const has = (command) => spawnSync(command, ['--version'], { stdio: 'ignore' }).status === 0;

function needChromium() {
  if (process.env.ZG_CHROMIUM || has('chromium')) return;
  say("installing chromium from Debian's packages");
  const sudo = process.getuid?.() === 0 ? [] : ['sudo'];
  const apt = (args) => {
    const [command, ...rest] = [...sudo, 'apt-get', ...args];
    return (
      spawnSync(command, rest, { stdio: ['ignore', 2, 2], env: { ...env, DEBIAN_FRONTEND: 'noninteractive' } })
        .status === 0
    );
  };
  for (let i = 1; i <= 5; i++) {
    if (apt(['update', '-qq']) && apt(['install', '-y', '-qq', 'chromium'])) return;
    say(`apt is busy, trying again (${i})`);
    Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 10_000);
  }
  say(
    "zg test: chromium could not be installed; install Debian's package chromium, or name a Chromium in ZG_CHROMIUM, and run again",
  );
  process.exit(1);
}

function serve() {
  const server = spawn(process.execPath, ['scripts/serve.mjs'], { stdio: 'inherit', env });
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => server.kill(signal));
  server.on('exit', (status) => process.exit(status ?? 1));
}

const [command, ...rest] = process.argv.slice(2);
switch (command) {
  case 'demo':
    needBuild();
    env.ZG_DATA ??= 'demo-data';
    run(process.execPath, ['--enable-source-maps', 'dist/demo.mjs']);
    serve();
    break;
  case 'start':
    needBuild();
    env.ZG_DATA ??= 'data';
    serve();
    break;
  case 'plan':
  case 'prove':
  case 'backup':
  case 'restore':
    needWorkers();
    env.ZG_FROM = from;
    run(process.execPath, ['--enable-source-maps', 'dist/cli.mjs', command, ...rest], { stdio: 'inherit' });
    break;
  case 'test':
    needPackages();
    needChromium();
    npm(['run', '--silent', 'lint']);
    needWorkers();
    tool('typescript/bin/tsc', ['--noEmit']);
    tool('vitest/vitest.mjs', ['run', '--project', 'plain', '--project', 'whole'], { stdio: 'inherit' });
    needBuild();
    tool('@playwright/test/cli.js', ['test'], { stdio: 'inherit' });
    break;
  default:
    say(USAGE);
    process.exit(2);
}
