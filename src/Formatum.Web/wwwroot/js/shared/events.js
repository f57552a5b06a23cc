// What the server tells a page by itself: one line for all who listen.

let source = null;
const listeners = { changed: new Set(), links: new Set(), open: new Set() };

// Listens to a publication: "changed" with its revision, "links" when files changed, "open" each time the line stands.
export function listen(publication, handlers) {
  for (const [kind, handler] of Object.entries(handlers)) listeners[kind].add(handler);
  if (source) return;
  source = new EventSource(`/publications/${publication}/events`);
  source.addEventListener('open', () => listeners.open.forEach(handler => handler()));
  source.addEventListener('changed', event => listeners.changed.forEach(handler => handler(Number(event.data))));
  source.addEventListener('links', () => listeners.links.forEach(handler => handler()));
}
