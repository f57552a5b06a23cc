// The card on which an image's subject point is set: a click, the arrow keys, or a suggestion accepted.
(() => {
  const { address, spread } = window.Desk;
  const dialog = document.getElementById('subject-dialog');

  async function post(handler, values) {
    const answer = await fetch(`${address}/${spread}?handler=${handler}`, { method: 'POST', headers: { RequestVerificationToken: requestToken }, body: new URLSearchParams(values) });
    const text = await answer.text();
    if (!answer.ok) {
      tell(problemOf(text)?.detail ?? 'That did not work. Look at it again and retry.');
      return;
    }
    if (text) dialog.innerHTML = text;
    document.dispatchEvent(new CustomEvent('formatum:changed'));
  }

  const image = () => dialog.querySelector('[data-image]').dataset.image;

  document.addEventListener('click', async event => {
    const opener = event.target.closest('[data-subject]');
    if (opener) {
      const answer = await fetch(`${address}/${spread}?handler=Subject&image=${opener.dataset.subject}`);
      dialog.innerHTML = await answer.text();
      if (!dialog.open) dialog.showModal();
      dialog.querySelector('#subject-field').focus();
      return;
    }
    if (event.target.closest('#suggest-all')) {
      tell('Looking for the subject of every picture\u2026');
      await post('Suggest', {});
      return;
    }
    const action = event.target.closest('[data-subject-do]')?.dataset.subjectDo;
    if (action === 'close') dialog.close();
    else if (action === 'suggest') await post('Suggest', { image: image() });
    else if (action) await post('Subject', { do: action, image: image() });
  });

  dialog.addEventListener('click', event => {
    const field = event.target.closest('#subject-field');
    if (!field) return;
    const box = field.querySelector('img').getBoundingClientRect();
    set((event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height);
  });

  const arrows = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };
  dialog.addEventListener('keydown', event => {
    const field = event.target.closest('#subject-field');
    const way = arrows[event.key];
    if (!field || !way) return;
    event.preventDefault();
    const step = event.shiftKey ? 0.1 : 0.01;
    set(Number(field.dataset.x) + way[0] * step, Number(field.dataset.y) + way[1] * step).then(() => dialog.querySelector('#subject-field').focus());
  });

  function set(x, y) {
    const inside = value => Math.min(1, Math.max(0, value));
    return post('Subject', { do: 'subject-set', image: image(), pointX: inside(x), pointY: inside(y) });
  }
})();
