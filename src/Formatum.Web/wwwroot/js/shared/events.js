// What the server tells a page by itself: one line for all who listen, and where the browser can, for all its windows.
import { randomName } from './http.js';
import { lineOf } from './line.js';

let listening = false;
const listeners = { changed: new Set(), links: new Set() };
const tellAll = (kind, revision) => listeners[kind].forEach(handler => handler(revision));

// Listens to a publication: "changed" with its revision, "links" when files changed.
export function listen(publication, handlers) {
  for (const [kind, handler] of Object.entries(handlers)) listeners[kind].add(handler);
  if (listening) return;
  listening = true;
  if (window.SharedWorker) shareLine(Number(publication));
  else ownLine(Number(publication));
}

const ownLine = publication => lineOf((kind, _, revision) => tellAll(kind, revision)).listenTo([publication]);

function shareLine(publication) {
  const worker = new SharedWorker(import.meta.resolve('/js/shared/events-worker.js'), { type: 'module', name: 'formatum' });
  worker.addEventListener('error', () => ownLine(publication), { once: true });
  worker.port.onmessage = ({ data: [kind, revision] }) => tellAll(kind, revision);
  const lock = navigator.locks ? `formatum-window-${randomName()}` : null;
  const join = () => worker.port.postMessage({ publication, lock });
  if (lock) navigator.locks.request(lock, () => { join(); return new Promise(() => {}); });
  else join();
  window.addEventListener('pagehide', () => worker.port.postMessage({ leaves: true }));
  window.addEventListener('pageshow', event => { if (event.persisted) join(); });
}
