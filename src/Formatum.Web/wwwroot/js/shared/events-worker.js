// One line to the server for all windows of a browser: it may hold but a few connections, and each window would take one for good.
import { lineOf } from './line.js';

const windows = new Map(), revisions = new Map();

const line = lineOf((kind, publication, revision) => {
  if (kind === 'changed') revisions.set(publication, Math.max(revision, revisions.get(publication) ?? 0));
  for (const [port, listens] of windows) if (listens === publication) port.postMessage([kind, revision]);
});

const renew = () => line.listenTo(windows.values());

function leave(port) {
  windows.delete(port);
  renew();
}

self.addEventListener('connect', ({ ports: [port] }) => {
  port.onmessage = ({ data: { publication, lock, leaves } }) => {
    if (leaves) { leave(port); return; }
    windows.set(port, publication);
    renew();
    if (revisions.has(publication)) port.postMessage(['changed', revisions.get(publication)]);
    // The window holds the lock for as long as it is there, however it goes.
    if (lock) navigator.locks?.request(lock, () => leave(port));
  };
});
