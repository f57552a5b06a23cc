// The line by which the server tells of changes: opened anew where the publications that are listened to are others than before.
const pause = 3000;

// tell(kind, publication, revision) is called for each thing told.
export function lineOf(tell) {
  let source = null, listened = '', again = 0;

  function open() {
    source?.close();
    clearTimeout(again);
    if (!listened) return;
    source = new EventSource(`/events?of=${listened}`);
    const numbers = event => event.data.split(' ').map(Number);
    for (const kind of ['changed', 'links']) source.addEventListener(kind, event => tell(kind, ...numbers(event)));
    // A browser goes on by itself where a connection breaks, and not where it was answered with an error.
    source.addEventListener('error', () => {
      if (source.readyState === EventSource.CLOSED) again = setTimeout(open, pause);
    });
  }

  return {
    listenTo(publications) {
      const wanted = [...new Set(publications)].sort((a, b) => a - b).join(',');
      if (wanted === listened) return;
      listened = wanted;
      open();
    },
  };
}
