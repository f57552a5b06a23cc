// The one queue of the Desk. Every edit, choice and refresh goes through it in order; none is dropped, none takes another's place.
// Each ends as done or as a problem; after any problem the page shows what the server holds.
import { answersAgain, ask, Problem, randomName } from '../shared/http.js';
import { leavePage } from '../shared/leave.js';
import { tell, tellAfterwards } from '../shared/notices.js';
import { untilLetGo } from '../shared/pointer.js';
import { renewWith, settleFields } from '../shared/renew.js';
import { address, canvas, desk, inspector, numbers, sheet, showsSpread, withGroups } from './parts.js';
import { change, state } from './state.js';
import { keepTyped, showErrors } from './typed.js';

const waiting = [];
let working = false, choicesUnderWay = 0, afterwards = null, gone = null;

// What is chosen as far as the queue has come. What was chosen later shows at once, and is reached in its turn.
let reached = { ids: numbers(inspector.querySelector('[data-chosen]')?.dataset.chosen), inside: false };

const beforeLeaving = [];

// Something to do before this spread is left, such as storing what was typed; whether it could be done.
export const onLeaving = run => beforeLeaving.push(run);

// Waits its turn. Gives { done } or { problem }, and never throws.
function queue(run, kind = '') {
  return new Promise(resolve => {
    waiting.push({ run, resolve, kind });
    work();
  });
}

async function work() {
  if (working) return;
  working = true;
  // While something is under way, assistive technology waits with reading the Desk aloud.
  desk.setAttribute('aria-busy', 'true');
  while (waiting.length > 0) {
    const { run, resolve } = waiting.shift();
    resolve(await run().then(done => ({ done: done ?? true }), recover));
  }
  working = false;
  desk.removeAttribute('aria-busy');
  if (afterwards) await leave();
  else if (newest > state.revision) refresh();
}

// Another window, or a program, changed something: it is shown once what is under way here is done.
let newest = 0;
export function changedElsewhere(revision) {
  newest = Math.max(newest, revision);
  if (!working && newest > state.revision) refresh();
}

async function recover(error) {
  const problem = error instanceof Problem ? error : new Problem(500);
  if (problem !== error) console.error(error);
  await load('Refresh', reached).catch(again => console.error(again));
  if (!showErrors(problem.errors)) tell(problem.message);
  return { problem };
}

// Asks as often as it takes while nobody answers. What is asked again bears the same name, and is done once.
export async function surely(asking) {
  for (; ;) {
    try {
      const answer = await asking();
      gone?.();
      gone = null;
      return answer;
    } catch (problem) {
      if (!(problem instanceof Problem) || !problem.isGone) throw problem;
      gone ??= tell('The server does not answer. What you do waits here, and is sent when it is back.', { stays: true });
      await answersAgain();
    }
  }
}

// No fewer of them come back, so that the contact sheet stays where it was scrolled to.
const imagesShown = () => sheet.querySelectorAll('.contact-sheet > li[id^=image-]').length;

// What of a text is meant decides what the inspector says of it.
const rangeAsked = () => (state.range === null ? '' : `&range=${state.range}`);

async function load(handler, { ids, inside }) {
  await show(await surely(() => ask('GET', `${address}?handler=${handler}&frames=${ids.join(',')}&inside=${inside}&images=${imagesShown()}${rangeAsked()}`)));
}

// Puts an answer's pieces in their places, and takes over what it says.
async function show({ text, head }, { turns = false } = {}) {
  await untilLetGo(document);
  keepTyped(() => renewWith(text, inspector));
  if (turns) showsSpread(head.spread);
  reached = { ids: numbers(inspector.querySelector('[data-chosen]')?.dataset.chosen), inside: inspector.querySelector('[data-inside]') !== null };
  const next = { answered: state.answered + 1, spread: Number(desk.dataset.spread) };
  if (choicesUnderWay === 0) Object.assign(next, { selection: reached.ids, inside: reached.inside });
  if (head) Object.assign(next, takeOver(head));
  change(next);
}

const ownFonts = document.getElementById('own-fonts');

function takeOver(head) {
  // Fonts that came or went since the page was opened.
  const { pathname, search } = new URL(ownFonts.href);
  if (head.fonts !== undefined && search.slice(1) !== head.fonts) ownFonts.href = `${pathname}?${head.fonts}`;
  const anew = head.reload || Boolean(head.shape && head.shape !== desk.dataset.shape);
  if (anew || head.goesTo) {
    afterwards = { ...afterwards, spread: head.goesTo ?? afterwards?.spread, anew: anew || afterwards?.anew, told: head.told || afterwards?.told };
  }
  // A step that others took in between has not been shown yet: until it is, nothing done here was done in its knowledge.
  const missed = head.stale || (head.before !== undefined && head.before > state.revision);
  if (!missed) return { revision: head.revision };
  if (!waiting.some(item => item.kind === 'refresh')) refresh();
  return {};
}

// Turns to another spread, leaves for another page, or loads this one anew where its pages changed, once all that was begun is done.
async function leave() {
  const { spread, anew, told, href } = afterwards;
  afterwards = null;
  if (!href && !anew) {
    await turnTo({ spread });
    if (told) tell(told);
    return;
  }
  for (const run of beforeLeaving) await run();
  if (told) tellAfterwards(told);
  leavePage(href ?? (spread && String(spread) !== desk.dataset.spread ? `${desk.dataset.address}/${spread}` : null));
}

// ---- From spread to spread -----------------------------------------------------------------------------------------------------------

let turnsUnderWay = 0;
export const isTurning = () => turnsUnderWay > 0;

// Shows another spread in place of this one, once all that was begun is done: one by its number, or that on which a page lies, by the number it bears.
export async function turnTo(to) {
  for (const run of beforeLeaving) if (!await run()) return { problem: true };
  // What follows at once is meant for what comes.
  change({ selection: [], inside: false, shaping: false });
  turnsUnderWay++;
  canvas.inert = true;
  for (const dialog of document.querySelectorAll('dialog[open]')) dialog.close();
  for (const card of document.querySelectorAll(':popover-open')) card.hidePopover();
  const outcome = await queue(() => turn(to));
  turnsUnderWay--;
  canvas.inert = isTurning();
  if (document.activeElement === document.body) canvas.focus({ preventScroll: true });
  return outcome;
}

async function turn({ spread = state.spread, folio = '', frames = '', isBack = false }) {
  const query = new URLSearchParams({ handler: 'Turn', folio, frames, images: imagesShown() });
  const answer = await surely(() => ask('GET', `${desk.dataset.address}/${spread}?${query}`));
  const href = `${desk.dataset.address}/${answer.head.spread}`;
  if (!isBack && href !== location.pathname + location.search) history.pushState(null, '', href);
  await show(answer, { turns: true });
  settleFields(document.getElementById('spreads'));
  if (answer.head.told) tell(answer.head.told);
  window.htmx.process(document.getElementById('output-button'));
}

// To the spread before the one that is shown, or behind it: asked for twice at once, two spreads on.
let stepping = Promise.resolve();
export function turnBy(step) {
  stepping = stepping.then(async () => {
    const { href } = document.getElementById(step);
    if (href) await turnTo(spreadOf(href));
  });
}

// The spread that an address is of, and the frame it names; null where it is another's.
function spreadOf(href) {
  const url = URL.parse(href, location.href), base = desk.dataset.address;
  if (url?.origin !== location.origin || url.hash || !url.pathname.startsWith(base)) return null;
  const [isSpread, number] = /^(?:\/(-?\d+))?$/.exec(url.pathname.slice(base.length)) ?? [null];
  return isSpread === null ? null : { spread: Number(number ?? 1), frames: url.searchParams.get('frame') ?? '' };
}

window.addEventListener('popstate', async () => {
  const { problem } = await turnTo({ ...spreadOf(location.href), isBack: true });
  if (problem) history.replaceState(null, '', address);
});

// Whether a person chose what is chosen, rather than made it last.
let chosenByHand = true;
export const isChosenByHand = () => chosenByHand;

// Edits that choose what they make: keys that follow at once are meant for that.
const making = new Set(['draw', 'draw-here', 'draw-free', 'draw-stroke', 'grid', 'set-down', 'paste', 'repeat']);
const makesUnderWay = new Set();
export const isMaking = () => makesUnderWay.size > 0;

// Whether what a drag is making covers a point of the spread, by what was dragged.
export const isComingAt = ({ x, y }) => [...makesUnderWay].some(({ fromX, fromY, toX, toY }) =>
  x >= Math.min(fromX, toX) && x <= Math.max(fromX, toX) && y >= Math.min(fromY, toY) && y <= Math.max(fromY, toY));

export const hasChoice = () => state.selection.length > 0 || isMaking();

// What gives frames a look: the frame that had it last can be asked for it again.
const giveLook = new Set(['look', 'named-look', 'clear-look', 'paste-look', 'look-again']);
const lastLook = 'last-look';
export const lookedLast = () => Number(sessionStorage.getItem(`${lastLook} ${address}`)) || null;

// Once all is done that was begun before.
export const settled = () => queue(async () => {});

// Whether something that was done is not answered yet.
export const isBusy = () => working;

// Makes an edit of what is chosen, or of the frames named in it. It was begun at the revision "seen".
export function edit(command, { seen = state.revision } = {}) {
  const key = randomName();
  if (making.has(command.do)) {
    makesUnderWay.add(command);
    chosenByHand = false;
  }
  // A key that follows at once means what was just asked for.
  if (giveLook.has(command.do)) sessionStorage.setItem(`${lastLook} ${address}`, String(command.frames ?? state.selection).split(',')[0]);
  return queue(async () => {
    const json = { seen, inside: reached.inside, images: imagesShown(), range: state.range, command: { frames: reached.ids, ...command } };
    // Ids go with commas between, however they were given.
    for (const name of ['frames', 'keep', 'images', 'copied']) if (json.command[name] !== undefined) json.command[name] = String(json.command[name]);
    try {
      await show(await surely(() => ask('POST', address, { json, key })));
    } finally {
      makesUnderWay.delete(command);
    }
    return reached;
  });
}

// Chooses frames, each with its group unless it is meant alone; or goes into the picture of one.
export function choose(ids, { inside = false, alone = false } = {}) {
  const meant = () => (inside || alone ? ids : withGroups(ids));
  choicesUnderWay++;
  chosenByHand = true;
  change({ selection: meant(), inside });
  return queue(async () => {
    choicesUnderWay--;
    // Frames may have been grouped on the way here.
    reached = { ids: meant(), inside };
    await load('Inspector', reached);
  });
}

// Shows the inspector anew: something else of what is chosen is meant.
export function lookAgain() {
  if (!waiting.some(item => item.kind === 'look')) queue(() => load('Inspector', reached), 'look');
}

// Shows what the server holds now.
export const refresh = () => queue(() => load('Refresh', reached), 'refresh');

// Sends a form of its own to a handler of the Desk. Throws a Problem; what it sends again is made once.
export function post(handler, form, { seen = state.revision } = {}) {
  const key = randomName();
  return queue(async () => surely(() => ask('POST', `${address}?handler=${handler}&seen=${seen}`, { form, key })));
}

// Sends a command to a handler of the Desk that answers in its own way. Throws a Problem; what it sends again is made once.
export function postCommand(handler, command, { seen = state.revision } = {}) {
  const key = randomName();
  return queue(async () => surely(() => ask('POST', `${address}?handler=${handler}`, { json: { seen, inside: false, command }, key })));
}

// A link to a spread turns to it; one that leads elsewhere while something waits to be sent is followed once that is done.
document.addEventListener('click', event => {
  const link = event.target.closest('a[href]');
  if (!link || link.target || link.hasAttribute('download') || event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey) return;
  const to = spreadOf(link.getAttribute('href'));
  if (!to && !working && state.writing === null) return;
  event.preventDefault();
  if (to) {
    if (link.closest('#spreads')) turnBy(link.id);
    else turnTo(to);
    return;
  }
  afterwards = { href: link.href };
  queue(async () => {});
}, true);
window.addEventListener('beforeunload', event => {
  if (working && !afterwards && waiting.length > 0) event.preventDefault();
});

// Loads the page anew, when all that was begun is done.
export function loadAnew(told) {
  afterwards = { anew: true, told };
  queue(async () => {});
}
