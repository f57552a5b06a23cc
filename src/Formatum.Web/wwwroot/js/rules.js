// Rules: what is typed is sent, what the server makes of it is shown. Nothing is computed here.
(() => {
  const rules = document.getElementById('rules');
  const form = document.getElementById('rule-form');
  const impact = document.getElementById('impact');
  const address = rules.dataset.address;
  let changed = rules.dataset.changed === 'yes';
  let leaving = false;

  form.addEventListener('input', () => { changed = true; });
  form.addEventListener('submit', event => event.preventDefault());

  // The nine places of alignment fill in the two fields.
  document.getElementById('rule-nine').addEventListener('click', event => {
    const button = event.target.closest('button');
    if (!button) return;
    form.querySelector('[name="Set[AlignX]"]').value = button.dataset.x;
    form.querySelector('[name="Set[AlignY]"]').value = button.dataset.y;
    form.dispatchEvent(new Event('change', { bubbles: true }));
    form.dispatchEvent(new Event('input', { bubbles: true }));
  });
  form.addEventListener('input', showNine);
  function showNine() {
    const x = form.querySelector('[name="Set[AlignX]"]').value, y = form.querySelector('[name="Set[AlignY]"]').value;
    for (const button of document.querySelectorAll('#rule-nine button')) button.setAttribute('aria-pressed', button.dataset.x === x && button.dataset.y === y);
  }

  document.addEventListener('click', event => {
    if (event.target.closest('#discard')) {
      leaving = true;
      location.href = address;
    }
    const history = event.target.closest('#history [data-do]');
    if (history) htmx.ajax('POST', `${address}?handler=History`, { values: { do: history.dataset.do }, swap: 'none' });
  });
  document.addEventListener('keydown', event => {
    if (event.target.closest('input, select, textarea') || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
    event.preventDefault();
    htmx.ajax('POST', `${address}?handler=History`, { values: { do: event.shiftKey ? 'redo' : 'undo' }, swap: 'none' });
  });

  // What was asked for in a card is shown at the right; the card has done its work.
  document.addEventListener('htmx:afterRequest', event => {
    const to = event.detail.xhr?.getResponseHeader('HX-Redirect');
    if (to) leaving = true;
    if (event.detail.successful) event.target.closest('[popover]')?.hidePopover();
  });

  // Typed but not applied: nothing is lost without a word.
  window.addEventListener('beforeunload', event => {
    if (changed && !leaving) event.preventDefault();
  });

  // Another window changed something: look at it as it is now, unless something is under way here; that is then shown against it.
  const revision = () => Number(document.getElementById('revision').dataset.revision);
  const events = new EventSource(`/publications/${rules.dataset.publication}/events`);
  events.addEventListener('changed', event => {
    if (Number(event.data) <= revision() || leaving) return;
    if (!changed) {
      leaving = true;
      location.reload();
    } else if (!impact.querySelector('[data-elsewhere]')) {
      const note = document.createElement('p');
      note.className = 'impact-note';
      note.dataset.elsewhere = 'yes';
      note.textContent = 'Something was changed in another window meanwhile. If it was this rule, applying will be refused, and nothing overwritten.';
      impact.prepend(note);
    }
  });
})();
