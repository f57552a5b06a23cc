// What the server tells a page by itself: one line for all who listen.

// How long to wait before a line that was answered with an error is asked for again, in milliseconds.
const pause = 3000;

let listening = false;
const listeners = { changed: new Set(), links: new Set() };

// Listens to a publication: "changed" with its revision, "links" when files changed.
export function listen(publication, handlers) {
  for (const [kind, handler] of Object.entries(handlers)) listeners[kind].add(handler);
  if (listening) return;
  listening = true;
  open(publication);
}

function open(publication) {
  const source = new EventSource(`/events?of=${publication}`);
  // Each item names the publication first, as one line may tell of several.
  for (const [kind, told] of Object.entries(listeners))
      source.addEventListener(kind, event => told.forEach(handler => handler(Number(event.data.split(' ')[1]))));
  // A browser goes on by itself where a connection breaks, and not where it was answered with an error.
  source.addEventListener('error', () => {
    if (source.readyState === EventSource.CLOSED) setTimeout(open, pause, publication);
  });
}
