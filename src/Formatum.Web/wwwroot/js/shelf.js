// Takes a bundle in, chosen or dropped on the shelf, and opens what was in it.
(() => {
  const panel = document.getElementById('intake');
  const progress = document.getElementById('intake-progress');
  const words = document.getElementById('intake-words');
  const cancel = document.getElementById('intake-cancel');
  const close = document.getElementById('intake-close');
  const input = document.getElementById('bundle-file');
  let sending = null;

  function show(text, { done = false, sent = null } = {}) {
    panel.hidden = false;
    words.textContent = text;
    progress.hidden = cancel.hidden = done;
    close.hidden = !done;
    if (sent === null) progress.removeAttribute('value');
    else progress.value = sent;
  }

  const listed = (names, what) => names.length === 0 ? '' : ` ${names.length} of its linked files ${names.length === 1 ? 'was' : 'were'} ${what}: ${names.slice(0, 4).join(', ')}${names.length > 4 ? ' ...' : ''}.`;

  function takeIn(file) {
    const form = new FormData();
    form.append('files', file);
    const request = new XMLHttpRequest();
    sending = request;
    show(`Sending ${file.name}\u2026`, { sent: 0 });
    request.open('POST', '/api/bundles');
    request.setRequestHeader('RequestVerificationToken', requestToken);
    request.upload.addEventListener('progress', event => { if (event.lengthComputable) show(`Sending ${file.name}\u2026`, { sent: event.loaded / event.total }); });
    request.upload.addEventListener('load', () => {
      show('Unpacking, and reading its pictures\u2026 It goes on if you leave; the publication is then on the shelf.');
      cancel.hidden = true;
    });
    request.addEventListener('load', () => {
      sending = null;
      const answer = problemOf(request.responseText);
      if (request.status !== 201) {
        show(answer?.detail ?? 'The bundle was not taken in. Try again.', { done: true });
        return;
      }
      tellAfterwards(`${answer.name} is on the shelf.${listed(answer.changed, 'changed before it was bundled')}${listed(answer.missing, 'missing when it was bundled')}`);
      location.href = `/publications/${answer.id}/desk`;
    });
    request.addEventListener('error', () => {
      sending = null;
      show(unreachable, { done: true });
    });
    request.addEventListener('abort', () => {
      sending = null;
      panel.hidden = true;
    });
    request.send(form);
  }

  document.getElementById('take-in').addEventListener('click', () => input.click());
  input.addEventListener('change', () => {
    if (input.files.length && !sending) takeIn(input.files[0]);
    input.value = '';
  });
  cancel.addEventListener('click', () => sending?.abort());
  close.addEventListener('click', () => { panel.hidden = true; });

  document.addEventListener('dragover', event => { if (event.dataTransfer.types.includes('Files')) event.preventDefault(); });
  document.addEventListener('drop', event => {
    if (event.dataTransfer.files.length === 0) return;
    event.preventDefault();
    if (!sending) takeIn(event.dataTransfer.files[0]);
  });
})();
