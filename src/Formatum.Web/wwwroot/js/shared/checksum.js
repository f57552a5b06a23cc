// How many findings count, on the bar of every screen: asked for again whenever the publication or its files change.
import { ask } from './http.js';
import { listen } from './events.js';
import { oneAtATime } from './newest.js';

const link = document.querySelector('[data-checksum]');

const refresh = oneAtATime(async () => {
  // Where nobody answers, the figures stay as they were: they come again with the next change.
  const answer = await ask('GET', `${link.getAttribute('href')}?handler=Sum`).catch(() => null);
  if (answer) link.querySelector('.check-sum').innerHTML = answer.text;
});

if (link) {
  refresh();
  listen(link.dataset.checksum, { changed: refresh, links: refresh, found: refresh });
}
