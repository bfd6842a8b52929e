// npm run tls: puts Debian's nginx with a certificate of its own before a Sombra that runs on this machine, on loopback.
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { root } from './root.mjs';

/** Where nginx stands: installed, or taken out of Debian's package without installing it, so that nothing is started. */
function findNginx(folder) {
  if (existsSync('/usr/sbin/nginx')) return '/usr/sbin/nginx';
  const unpacked = path.join(folder, 'nginx/usr/sbin/nginx');
  if (existsSync(unpacked)) return unpacked;
  mkdirSync(path.join(folder, 'nginx'), { recursive: true });
  spawnSync('apt-get', ['update', '-qq'], { stdio: 'ignore' });
  const got = spawnSync('apt-get', ['download', 'nginx'], { cwd: folder, encoding: 'utf8' });
  const file = readdirSync(folder).find((name) => /^nginx_.*\.deb$/.test(name));
  if (!file) throw new Error(`nginx could not be fetched. Install it, then run this again:\n${got.stderr}`);
  const run = spawnSync('dpkg', ['-x', path.join(folder, file), path.join(folder, 'nginx')], { encoding: 'utf8' });
  if (run.status !== 0) throw new Error(`nginx could not be unpacked:\n${run.stderr}`);
  return unpacked;
}

/** A certificate for loopback that nobody else trusts: good enough to try what needs TLS. */
function makeCertificate(folder) {
  const [key, certificate] = [path.join(folder, 'key.pem'), path.join(folder, 'certificate.pem')];
  if (existsSync(certificate)) return { key, certificate };
  const run = spawnSync(
    'openssl',
    // prettier-ignore
    ['req', '-x509', '-newkey', 'ec', '-pkeyopt', 'ec_paramgen_curve:P-256', '-nodes', '-days', '30',
     '-subj', '/CN=Sombra on loopback', '-addext', 'subjectAltName=IP:127.0.0.1,DNS:localhost',
     '-keyout', key, '-out', certificate],
    { encoding: 'utf8' },
  );
  if (run.status !== 0) throw new Error(`No certificate could be made:\n${run.stderr}`);
  return { key, certificate };
}

/** The lines docs/operating.md shows: one hop, whose word the server believes (TRUSTED_PROXY), and TLS (TLS=on). */
const configuration = ({ folder, port, target, key, certificate }) => `
daemon off;
worker_processes 1;
pid ${folder}/nginx.pid;
error_log ${folder}/error.log warn;
events { worker_connections 512; }
http {
  access_log off;
  client_body_temp_path ${folder}/body;
  proxy_temp_path ${folder}/proxy;
  fastcgi_temp_path ${folder}/fastcgi;
  uwsgi_temp_path ${folder}/uwsgi;
  scgi_temp_path ${folder}/scgi;
  # A sealed photo is the largest thing a phone sends; base maps are larger.
  client_max_body_size 520m;
  server {
    listen 127.0.0.1:${port} ssl;
    ssl_certificate ${certificate};
    ssl_certificate_key ${key};
    location / {
      proxy_pass http://127.0.0.1:${target};
      proxy_http_version 1.1;
      proxy_set_header Host $host:$server_port;
      proxy_set_header X-Forwarded-For $remote_addr;
      proxy_set_header X-Forwarded-Proto https;
      proxy_set_header Connection "";
    }
    # What others change is told as it happens: nothing is held back to fill a buffer.
    location /api/live {
      proxy_pass http://127.0.0.1:${target};
      proxy_http_version 1.1;
      proxy_set_header Host $host:$server_port;
      proxy_set_header X-Forwarded-For $remote_addr;
      proxy_set_header X-Forwarded-Proto https;
      proxy_set_header Connection "";
      proxy_buffering off;
      proxy_read_timeout 1h;
    }
    # A picture in parts goes on as it comes.
    location /api/uploads {
      proxy_pass http://127.0.0.1:${target};
      proxy_http_version 1.1;
      proxy_set_header Host $host:$server_port;
      proxy_set_header X-Forwarded-For $remote_addr;
      proxy_set_header X-Forwarded-Proto https;
      proxy_request_buffering off;
    }
  }
}
`;

const freePort = () =>
  new Promise((resolve) => {
    const probe = createServer();
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address();
      probe.close(() => resolve(port));
    });
  });

/** Starts the proxy; resolves once it takes connections. */
export async function startTls({ target, folder, port }) {
  mkdirSync(folder, { recursive: true });
  const nginx = findNginx(folder);
  const at = port ?? (await freePort());
  const file = path.join(folder, 'nginx.conf');
  writeFileSync(file, configuration({ folder, port: at, target, ...makeCertificate(folder) }));
  const child = spawn(nginx, ['-p', folder, '-c', file], { stdio: ['ignore', 'inherit', 'inherit'] });
  const ended = new Promise((resolve) => child.once('exit', resolve));
  await new Promise((resolve, reject) => {
    child.once('exit', (code) => reject(new Error(`nginx ended with ${code}`)));
    const wait = () => (existsSync(path.join(folder, 'nginx.pid')) ? resolve() : setTimeout(wait, 30));
    wait();
  });
  return {
    url: `https://127.0.0.1:${at}`,
    async stop() {
      child.kill('SIGTERM');
      await ended;
    },
  };
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) {
  const target = Number(process.env['PORT'] ?? 4310);
  const folder = path.join(process.env['SOMBRA_HOME'] ?? path.join(root, '.sombra'), 'tls');
  const proxy = await startTls({ target, folder, port: Number(process.env['TLS_PORT'] ?? 4443) });
  console.log(`${proxy.url} leads to port ${target}; start that with TLS=on TRUSTED_PROXY=loopback. Ctrl-C stops it.`);
  for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, () => void proxy.stop());
}
