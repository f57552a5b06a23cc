// One line to the server for all windows of a browser: it may hold but a few connections, and each window would take one for good.
// Not a module: a window that joins while the modules of a shared worker are being fetched may never be heard.

// How long to wait before a line that was answered with an error is asked for again, in milliseconds.
const pause = 3000;

const windows = new Map(), revisions = new Map();
let source = null, listened = '', again = 0;

function told(kind, data) {
  const [, id, text] = /^(\d+) ?(.*)$/.exec(data), publication = Number(id), what = text ? JSON.parse(text) : undefined;
  if (kind === 'changed') revisions.set(publication, Math.max(what, revisions.get(publication) ?? 0));
  for (const [port, listens] of windows) if (listens === publication) port.postMessage([kind, what]);
}

function open() {
  source?.close();
  clearTimeout(again);
  source = listened ? new EventSource(`/events?of=${listened}`) : null;
  if (!source) return;
  for (const kind of ['changed', 'links', 'found', 'caret']) source.addEventListener(kind, event => told(kind, event.data));
  // A browser goes on by itself where a connection breaks, and not where it was answered with an error.
  source.addEventListener('error', () => {
    if (source.readyState === EventSource.CLOSED) again = setTimeout(open, pause);
  });
}

function renew() {
  const wanted = [...new Set(windows.values())].sort((a, b) => a - b);
  for (const known of revisions.keys()) if (!wanted.includes(known)) revisions.delete(known);
  if (wanted.join(',') === listened) return;
  listened = wanted.join(',');
  open();
}

function leave(port) {
  windows.delete(port);
  renew();
}

self.addEventListener('connect', ({ ports: [port] }) => {
  port.onmessage = ({ data: { publication, leaves } }) => {
    if (leaves) { leave(port); return; }
    windows.set(port, publication);
    port.postMessage(['joined']);
    if (revisions.has(publication)) port.postMessage(['changed', revisions.get(publication)]);
    renew();
  };
  // A window that ends without a word, where the browser tells of it; otherwise its publication is listened to for nothing, which does no harm.
  port.addEventListener('close', () => leave(port));
});
