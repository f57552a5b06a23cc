// Images: which are ticked, which one is looked at, and proposals before anything is taken over.
(() => {
  const images = document.getElementById('images');
  const list = document.getElementById('image-list');
  const card = document.getElementById('image-card');
  const query = document.getElementById('image-query');
  const dialog = document.getElementById('update-dialog');
  const address = `/publications/${images.dataset.publication}/images`;

  const ticks = () => [...list.querySelectorAll('.tick')];
  const ticked = () => ticks().filter(tick => tick.checked).map(tick => tick.value);
  const shown = () => card.querySelector('[data-image]')?.dataset.image;

  function showTicks() {
    const none = ticked().length === 0;
    for (const id of ['to-tray', 'unlink']) document.getElementById(id).disabled = none;
    for (const tick of ticks()) tick.closest('[data-row]').classList.toggle('is-ticked', tick.checked);
  }

  const reload = () => htmx.ajax('GET', `${address}?handler=List&${new URLSearchParams(new FormData(query))}`, { target: '#image-list', swap: 'innerHTML' });
  const openCard = image => htmx.ajax('GET', `${address}?handler=Card&image=${image}`, { target: '#image-card', swap: 'innerHTML' });

  async function refresh() {
    const kept = new Set(ticked());
    await reload();
    for (const tick of ticks()) tick.checked = kept.has(tick.value);
    showTicks();
    if (shown()) await openCard(shown());
  }

  async function send(values, handler = '') {
    const body = new FormData();
    for (const [name, value] of Object.entries(values)) body.append(name, value);
    const answer = await fetch(`${address}${handler}`, { method: 'POST', headers: { RequestVerificationToken: requestToken }, body }).catch(() => null);
    if (answer?.ok) return true;
    tell(answer ? problemOf(await answer.text())?.detail ?? 'That did not work.' : unreachable);
    return false;
  }

  let lastTick = null;
  list.addEventListener('click', event => {
    const tick = event.target.closest('.tick');
    if (tick) {
      // With Shift, all between the last one and this one.
      const all = ticks(), from = all.indexOf(lastTick), to = all.indexOf(tick);
      if (event.shiftKey && from >= 0) all.slice(Math.min(from, to), Math.max(from, to) + 1).forEach(t => { t.checked = tick.checked; });
      lastTick = tick;
      showTicks();
    }
    const opened = event.target.closest('[data-card]');
    if (opened) openCard(opened.dataset.card);
    if (event.target.closest('#tick-all')) {
      for (const t of ticks()) t.checked = event.target.checked;
      showTicks();
    }
    if (event.target.closest('#to-tray')) send({ do: 'tray-add', images: ticked().join(',') }).then(done => { if (done) tell(`${ticked().length} in the tray now.`); });
    if (event.target.closest('#unlink')) send({ do: 'unlink', images: ticked().join(',') });
    if (event.target.closest('#update-all')) propose('Update', {});
    if (event.target.closest('#find-missing')) askFolder('');
  });

  async function propose(handler, values) {
    await htmx.ajax('GET', `${address}?handler=${handler}&${new URLSearchParams(values)}`, { target: '#update-body', swap: 'innerHTML' });
    if (!dialog.open) dialog.showModal();
  }

  const askFolder = wanted => {
    const words = document.createElement('template');
    words.innerHTML = `<form id="find-form" class="update-head"><h2>Find pictures in a folder</h2>
      <p>It and the folders in it are searched, by content first, then by name. Nothing changes before you say so.</p>
      <label class="form-label" for="find-folder">Folder on the server</label>
      <input id="find-folder" class="form-control form-control-sm" autocomplete="off" spellcheck="false">
      <div class="card-actions"><button class="btn btn-small btn-primary">Look there</button><button type="button" class="btn btn-small btn-quiet" id="leave-update">Not now</button></div></form>`;
    document.getElementById('update-body').replaceChildren(words.content);
    document.getElementById('find-folder').value = document.getElementById('folder')?.value ?? '';
    document.getElementById('find-form').dataset.images = wanted;
    dialog.showModal();
  };

  dialog.addEventListener('submit', event => {
    event.preventDefault();
    propose('Relink', { folder: document.getElementById('find-folder').value, images: event.target.dataset.images });
  });
  dialog.addEventListener('click', async event => {
    if (event.target.closest('#leave-update')) dialog.close();
    const take = event.target.closest('#take-update');
    if (!take) return;
    take.disabled = true;
    await send(JSON.parse(take.dataset.values), '?handler=Update');
    dialog.close();
    refresh();
  });

  card.addEventListener('click', event => {
    const act = event.target.closest('[data-act]')?.dataset.act;
    if (act === 'update') propose('Update', { images: shown() });
    if (act === 'find') askFolder(shown());
    if (act === 'tray') send({ do: 'tray-add', images: shown() });
    if (act === 'replace') {
      const picker = document.createElement('input');
      picker.type = 'file';
      picker.id = 'replacement';
      picker.hidden = true;
      picker.addEventListener('change', () => send({ image: shown(), file: picker.files[0] }, '?handler=Replace').then(() => picker.remove()));
      card.append(picker);
      picker.click();
    }
  });

  document.getElementById('history').addEventListener('click', event => {
    const step = event.target.closest('[data-do]')?.dataset.do;
    if (step) send({ do: step });
  });
  document.addEventListener('keydown', event => {
    if (event.target.closest('input:not([type=checkbox], [type=radio]), select, textarea, dialog') || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
    event.preventDefault();
    send({ do: event.shiftKey ? 'redo' : 'undo' });
  });

  query.addEventListener('submit', event => event.preventDefault());
  list.addEventListener('htmx:afterSettle', showTicks);
  document.addEventListener('formatum:images', refresh);
  const events = new EventSource(`/publications/${images.dataset.publication}/events`);
  let first = true;
  events.addEventListener('changed', () => {
    if (!first) refresh();
    first = false;
  });
  events.addEventListener('links', refresh);
  images.dataset.ready = 'yes';
})();
