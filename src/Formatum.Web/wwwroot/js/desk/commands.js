// Finds every command and setting by the words that people use for it, shows its key, and does it or leads to it.
import { canvas, inspector } from './parts.js';
import { also, places } from './command-words.js';
import { tell } from '../shared/notices.js';

const dialog = document.getElementById('commands-dialog'), field = document.getElementById('commands-field'), list = document.getElementById('commands-list');
const most = 12;
let all = [], found = [], taken = 0;

const wordsOf = text => text.toLowerCase().replaceAll('\u2019', '\'').split(/[^\p{L}\p{N}']+/u).filter(Boolean);

// The trade's words for it, and other words that people use, beside our own.
const otherWords = text => also.filter(([ours]) => ours.some(word => text.toLowerCase().includes(word))).map(([, others]) => others).join(' ');
const entry = (words, where, run, key = '') => ({ words, where, run, key, known: wordsOf(`${words} ${where} ${otherWords(words)}`) });

const nameOf = control => (control.getAttribute('aria-label') ?? control.textContent).trim().replace(/\s+/g, ' ');

function gather(keys, keyOf) {
  const entries = keys.filter(line => line.run && line.words).map(line => entry(line.words, line.group, () => {
    const event = new KeyboardEvent('keydown', { key: line.keys[0].split('+').at(-1) });
    canvas.focus({ preventScroll: true });
    if (line.when && !line.when(Object.defineProperty(event, 'target', { value: canvas }))) tell(`\u201c${line.words}\u201d: choose what it is for first.`);
    else line.run(event);
  }, keyOf(line)));
  for (const link of document.querySelectorAll('.topbar nav a')) entries.push(entry(nameOf(link), 'Screen', () => link.click()));
  for (const button of document.querySelectorAll('.workbar button, .topbar-end button, .pictures-head button, #pictures .bring-in button, #tray button')) {
    if (button.closest('[hidden], #spreads') || !nameOf(button)) continue;
    entries.push(entry(button.title.replace(/ \([^)]*\)$/, '') || nameOf(button), 'Bar', () => button.click(), / \(([^)]*)\)$/.exec(button.title)?.[1]));
  }
  for (const control of inspector.querySelectorAll('label, legend, button, summary')) {
    const name = nameOf(control).split(/[:\u00b7]/)[0];
    const within = control.closest('details')?.querySelector('summary')?.textContent.trim().split(':')[0] ?? 'Card';
    if (name.length > 1) entries.push(entry(name, within, () => lead(control)));
  }
  for (const { words, open, needs } of places) entries.push(entry(words, needs, () => leadTo(open, needs)));
  const seen = new Set();
  return entries.filter(({ words }) => !seen.has(words.toLowerCase()) && seen.add(words.toLowerCase()));
}

// Opens what hides a control, and gives it the keys.
function lead(control) {
  for (let part = control.closest('details'); part; part = part.parentElement.closest('details')) part.open = true;
  const target = control.control ?? (control.matches('button, summary') ? control : control.parentElement.querySelector('input, select, button')) ?? control;
  target.scrollIntoView({ block: 'center' });
  target.focus();
}

async function leadTo(open, needs) {
  const there = inspector.querySelector(open);
  if (there) lead(there.querySelector('summary') ?? there);
  else tell(`Choose ${needs.toLowerCase()} first; it is in the card at the left then.`);
}

// How well an entry answers what was typed: every word of that begins one of its own; 0 for not at all.
function answers({ known, words }, asked) {
  let sum = 0;
  for (const word of asked) {
    const best = known.findIndex(own => own.startsWith(word));
    if (best < 0) return 0;
    sum += 1 + 1 / (1 + best) + (known[best] === word ? 1 : 0);
  }
  return sum - words.length / 1000;
}

function show() {
  const asked = wordsOf(field.value);
  found = asked.length === 0 ? all.slice(0, most) : all.map(one => [answers(one, asked), one]).filter(([sum]) => sum > 0).sort((a, b) => b[0] - a[0])
      .slice(0, most).map(([, one]) => one);
  taken = 0;
  list.replaceChildren(...found.map((one, i) => {
    const line = Object.assign(document.createElement('li'), { id: `command-${i}`, role: 'option' });
    const words = document.createElement('span'), where = document.createElement('span'), key = document.createElement('kbd');
    words.textContent = one.words;
    where.textContent = one.where;
    where.className = 'quiet';
    key.textContent = one.key;
    line.append(words, where, ...(one.key ? [key] : []));
    line.addEventListener('click', () => run(one));
    return line;
  }));
  if (found.length === 0) list.textContent = 'Nothing is called so. Try another word for it.';
  mark();
}

function mark() {
  [...list.children].forEach((line, i) => line.setAttribute?.('aria-selected', i === taken));
  list.children[taken]?.scrollIntoView?.({ block: 'nearest' });
  field.setAttribute('aria-activedescendant', found.length > 0 ? `command-${taken}` : '');
}

function run(one) {
  dialog.close();
  one.run();
}

export function openCommands(keys, keyOf) {
  all = gather(keys, keyOf);
  field.value = '';
  show();
  dialog.showModal();
  field.focus();
}

field.addEventListener('input', show);
field.addEventListener('keydown', event => {
  const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
  if (by) {
    event.preventDefault();
    taken = (taken + by + found.length) % Math.max(1, found.length);
    mark();
  } else if (event.key === 'Enter') {
    event.preventDefault();
    if (found[taken]) run(found[taken]);
  }
});
dialog.addEventListener('click', event => { if (event.target === dialog) dialog.close(); });
