// What is taken away from the Desk: a file is asked for in place, so that a refusal is told here and leads to no other page.
import { desk } from './parts.js';
import { onUpdated } from '../shared/updates.js';
import { Problem, problemOf } from '../shared/http.js';
import { refresh } from './edits.js';
import { tell } from '../shared/notices.js';

const card = document.getElementById('output-card');

const nameOf = answer => /filename\*=UTF-8''([^;]+)/.exec(answer.headers.get('Content-Disposition') ?? '')?.[1];

async function take(address, button) {
  button?.setAttribute('aria-busy', 'true');
  try {
    const answer = await fetch(address).catch(() => { throw new Problem(0); });
    if (!answer.ok) throw new Problem(answer.status, problemOf(await answer.text()));
    const link = document.createElement('a'), name = nameOf(answer);
    link.href = URL.createObjectURL(await answer.blob());
    link.download = name ? decodeURIComponent(name) : address.split('/').at(-1).split('?')[0];
    link.click();
    setTimeout(() => URL.revokeObjectURL(link.href), 60_000);
  } catch (problem) {
    tell(problem.message, { stays: true });
  } finally {
    button?.removeAttribute('aria-busy');
  }
}

card.addEventListener('submit', event => {
  event.preventDefault();
  const form = event.target;
  take(`${form.getAttribute('action')}?${new URLSearchParams(new FormData(form))}`, event.submitter);
});
card.addEventListener('click', event => {
  const link = event.target.closest('a[download]');
  if (!link) return;
  event.preventDefault();
  take(link.getAttribute('href'), link);
});

onUpdated(async () => {
  await refresh();
  window.htmx.ajax('GET', `${desk.dataset.address}/${desk.dataset.spread}?handler=Output`, { target: '#output-card', swap: 'innerHTML' });
});
