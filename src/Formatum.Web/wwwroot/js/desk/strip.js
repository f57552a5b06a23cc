// The film strip and the contact sheet: more of each comes as its end comes in sight.
import { ask } from '../shared/http.js';
import { address, sheet } from './parts.js';
import { state, watch } from './state.js';

const strip = document.getElementById('strip');

async function moreSpreads(end) {
  const { text } = await ask('GET', `${address}?handler=Strip&from=${end.dataset.from}&to=${end.dataset.to}`);
  // What comes before the one that is shown must not push it away.
  const before = end.nextElementSibling !== null, fromRight = strip.scrollWidth - strip.scrollLeft;
  end.outerHTML = text;
  if (before) strip.scrollLeft = strip.scrollWidth - fromRight;
  window.htmx.process(strip);
  follow();
}

async function moreImages(end) {
  const { text } = await ask('GET', `${address}?handler=Sheet&after=${end.dataset.after}`);
  end.outerHTML = text;
  window.htmx.process(sheet);
}

const inSight = (run, root) => {
  const asked = new WeakSet();
  return new IntersectionObserver(entries => {
    for (const { isIntersecting, target } of entries) {
      if (!isIntersecting || asked.has(target)) continue;
      asked.add(target);
      // Where nobody answers it is asked for again when it next comes in sight.
      run(target).catch(() => asked.delete(target));
    }
  }, { root, rootMargin: '300px' });
};
const atEnds = inSight(moreSpreads, strip), atBottom = inSight(moreImages, null);

// The contact sheet is swapped by answers as well, so its end is looked for whenever it changed.
const follow = () => {
  for (const end of strip.querySelectorAll('.strip-more')) atEnds.observe(end);
  for (const end of sheet.querySelectorAll('.sheet-more')) atBottom.observe(end);
};
new MutationObserver(follow).observe(sheet, { childList: true, subtree: true });

const itemOf = spread => document.getElementById(`strip-${spread}`)?.closest('.strip-item');

async function moveOn() {
  const { spread } = state;
  // Far from what the strip holds, it begins anew about the spread.
  if (!itemOf(spread)) {
    const answer = await ask('GET', `${address}?handler=Strip`).catch(() => null);
    if (!answer || state.spread !== spread) return;
    strip.innerHTML = answer.text;
    window.htmx.process(strip);
  }
  strip.querySelector('.strip-item[aria-current]')?.removeAttribute('aria-current');
  itemOf(spread)?.setAttribute('aria-current', 'page');
  showStrip();
}
watch(['spread'], moveOn);

export function showStrip() {
  strip.querySelector('.strip-item[aria-current]')?.scrollIntoView({ block: 'nearest', inline: 'center' });
  follow();
}
