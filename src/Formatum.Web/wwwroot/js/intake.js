// Brings picture files in, with progress, and tells of each that did not come in why.
(() => {
  const publication = document.querySelector('[data-publication]').dataset.publication;
  const pictures = document.getElementById('pictures') ?? document.querySelector('.image-main');
  const panel = document.getElementById('intake');
  const progress = document.getElementById('intake-progress');
  const words = document.getElementById('intake-words');
  const problems = document.getElementById('intake-problems');
  const close = document.getElementById('intake-close');
  const input = document.getElementById('files');

  function begin(text) {
    panel.hidden = false;
    close.hidden = true;
    problems.replaceChildren();
    progress.hidden = false;
    progress.removeAttribute('value');
    words.textContent = text;
  }

  const imports = `/api/publications/${publication}/imports`;
  const cancel = document.getElementById('intake-cancel');
  let job = null, sending = null;

  const ended = status => status.state === 'done' || status.state === 'stopped';

  function line(name, words) {
    const item = document.createElement('li'), strong = document.createElement('strong');
    strong.textContent = name;
    item.append(strong, ` ${words}`);
    return item;
  }

  // How far a job is; and when it has ended, what came of it.
  function show(status) {
    panel.hidden = false;
    const refused = status.report.filter(r => r.error), same = status.report.filter(r => r.sameAs && r.sameAs !== r.name);
    problems.replaceChildren(...refused.map(r => line(r.name, r.error)), ...same.map(r => line(r.name, `is the same picture as ${r.sameAs}.`)));
    progress.hidden = ended(status);
    cancel.hidden = ended(status);
    close.hidden = !ended(status);
    if (ended(status)) {
      const cameIn = status.total - refused.length;
      words.textContent = `${cameIn} of ${status.total} came in.` + (status.same ? ` ${status.same} ${status.same === 1 ? 'was' : 'were'} there already.` : '') + (refused.length ? ` ${refused.length} did not:` : '') + (status.state === 'stopped' ? ' It was stopped.' : '');
      return;
    }
    progress.value = status.total ? status.done / status.total : 0;
    const left = status.secondsLeft === null || status.state === 'receiving' ? '' : status.secondsLeft < 90 ? `, about ${Math.max(1, Math.round(status.secondsLeft))} s left` : `, about ${Math.round(status.secondsLeft / 60)} min left`;
    words.textContent = `${status.resumed ? 'Going on: ' : ''}${status.done} of ${status.total} read${status.state === 'receiving' ? ', more are arriving' : left}`;
  }

  // Looks at a job until it has ended; also one that was begun before this page was opened.
  async function follow(id) {
    job = id;
    let last = null;
    while (job === id) {
      const answer = await fetch(`${imports}/${id}`).catch(() => null);
      if (!answer?.ok) break;
      last = await answer.json();
      show(last);
      if (ended(last)) break;
      await new Promise(resolve => { setTimeout(resolve, 400); });
    }
    if (job === id) job = null;
    document.dispatchEvent(new CustomEvent('formatum:images'));
    if (last && ended(last) && !problems.children.length) setTimeout(() => { if (!job && !problems.children.length) panel.hidden = true; }, 4000);
    return last?.report ?? [];
  }

  function fail(text) {
    progress.hidden = true;
    cancel.hidden = true;
    words.textContent = text;
    close.hidden = false;
  }

  // XMLHttpRequest, since fetch tells no progress of what is sent. The answer comes when all has been sent; what arrived is read meanwhile.
  window.bringIn = files => new Promise(resolve => {
    const form = new FormData();
    for (const file of files) form.append('files', file);
    begin(`Sending ${files.length} ${files.length === 1 ? 'file' : 'files'}\u2026`);
    cancel.hidden = false;
    const request = new XMLHttpRequest();
    sending = request;
    request.open('POST', imports);
    request.setRequestHeader('RequestVerificationToken', requestToken);
    request.upload.addEventListener('progress', event => { if (event.lengthComputable) progress.value = event.loaded / event.total; });
    request.addEventListener('load', async () => {
      sending = null;
      const answer = problemOf(request.responseText);
      if (request.status === 202) resolve(await follow(answer.id));
      else {
        fail(answer?.detail ?? 'The pictures did not come in. Try again.');
        resolve([]);
      }
    });
    for (const end of ['error', 'abort']) {
      request.addEventListener(end, () => {
        sending = null;
        if (end === 'error') fail(unreachable);
        else findUnderWay();
        resolve([]);
      });
    }
    request.send(form);
  });

  cancel.addEventListener('click', () => {
    sending?.abort();
    if (job) fetch(`${imports}/${job}`, { method: 'DELETE', headers: { RequestVerificationToken: requestToken } });
  });

  async function findUnderWay() {
    const answer = await fetch(imports).catch(() => null);
    const open = answer?.ok ? (await answer.json()).filter(status => !ended(status)) : [];
    if (open.length > 0) follow(open[open.length - 1].id);
    else panel.hidden = panel.hidden || !close.hidden ? panel.hidden : true;
  }

  // A dropped folder gives its files, and those of the folders in it.
  window.filesOf = async transfer => {
    const found = [];
    const read = async entry => {
      if (entry.isFile) {
        const file = await new Promise((resolve, reject) => { entry.file(resolve, reject); }).catch(() => null);
        if (file && !file.name.startsWith('.')) found.push(file);
        return;
      }
      const reader = entry.createReader();
      for (;;) {
        const some = await new Promise((resolve, reject) => { reader.readEntries(resolve, reject); }).catch(() => []);
        if (some.length === 0) return;
        for (const inner of some) await read(inner);
      }
    };
    const entries = [...transfer.items].map(item => item.webkitGetAsEntry?.()).filter(Boolean);
    if (entries.length === 0) return [...transfer.files];
    for (const entry of entries) await read(entry);
    return found;
  };

  document.getElementById('bring-in').addEventListener('click', () => input.click());
  input.addEventListener('change', () => {
    if (input.files.length) bringIn([...input.files]);
    input.value = '';
  });
  close.addEventListener('click', () => { panel.hidden = true; });

  pictures.addEventListener('dragover', event => {
    if (!event.dataTransfer.types.includes('Files')) return;
    event.preventDefault();
    pictures.classList.add('drop-here');
  });
  pictures.addEventListener('dragleave', () => pictures.classList.remove('drop-here'));
  pictures.addEventListener('drop', async event => {
    event.preventDefault();
    pictures.classList.remove('drop-here');
    const files = await filesOf(event.dataTransfer);
    if (files.length) bringIn(files);
  });

  document.getElementById('folder-form')?.addEventListener('submit', async event => {
    event.preventDefault();
    begin('Looking into the folder\u2026');
    try {
      const answer = await fetch(`${imports}/folder`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', RequestVerificationToken: requestToken },
        body: JSON.stringify({ folder: document.getElementById('folder').value, within: document.getElementById('folder-within').checked }),
      });
      const body = await answer.json();
      if (answer.ok) follow(body.id);
      else fail(body.detail ?? 'The folder could not be linked.');
    } catch {
      fail(unreachable);
    }
  });

  findUnderWay();
})();
