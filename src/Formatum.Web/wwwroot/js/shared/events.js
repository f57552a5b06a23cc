// What the server tells a page by itself: one line for all windows of a browser where it can share one, else one for each.

// How long to wait before a line that was answered with an error is asked for again, and for the shared line to say that this window has joined;
// in milliseconds.
const pause = 3000, patience = 3000;

let listening = false;
const listeners = { changed: new Set(), links: new Set(), found: new Set(), caret: new Set() };
const tellAll = (kind, what) => listeners[kind].forEach(handler => handler(what));
const whatOf = text => (text ? JSON.parse(text) : undefined);

// Listens to a publication: "changed" with its revision, "links" when files changed, "found" when more was measured, "caret" with where somebody types.
export function listen(publication, handlers) {
  for (const [kind, handler] of Object.entries(handlers)) listeners[kind].add(handler);
  if (listening) return;
  listening = true;
  if (window.SharedWorker) shareLine(Number(publication));
  else ownLine(publication);
}

function ownLine(publication) {
  const source = new EventSource(`/events?of=${publication}`);
  // Each item names the publication first, as one line may tell of several.
  for (const kind of Object.keys(listeners)) source.addEventListener(kind, event => tellAll(kind, whatOf(/^\d+ ?(.*)$/.exec(event.data)[1])));
  // A browser goes on by itself where a connection breaks, and not where it was answered with an error.
  source.addEventListener('error', () => {
    if (source.readyState === EventSource.CLOSED) setTimeout(ownLine, pause, publication);
  });
}

function shareLine(publication) {
  const worker = new SharedWorker(import.meta.resolve('/js/workers/events.js'));
  let settled = false;
  const settle = () => {
    const first = !settled;
    settled = true;
    clearTimeout(waiting);
    return first;
  };
  const giveUp = () => {
    if (!settle()) return;
    worker.port.close();
    ownLine(publication);
  };
  const waiting = setTimeout(giveUp, patience);
  worker.addEventListener('error', giveUp);
  worker.port.onmessage = ({ data: [kind, what] }) => {
    settle();
    if (kind !== 'joined') tellAll(kind, what);
  };
  const join = () => worker.port.postMessage({ publication });
  join();
  window.addEventListener('pagehide', () => worker.port.postMessage({ leaves: true }));
  window.addEventListener('pageshow', event => { if (event.persisted) join(); });
}
