// The line on which drags are asked about: one question at a time, and the newest pointer position wins.
import { address } from './parts.js';
import { state, watch } from './state.js';
import { windowName } from '../shared/http.js';

// A question that is not answered by then is given up; the next one may be.
const deadline = 4000;

let line = null, answered = null;

// The lines of each frame of a text as they were told last: only those that changed come anew.
const told = new Map();
function withAllLines(answer) {
  for (const frame of answer?.writing?.frames ?? []) {
    const before = told.get(frame.id) ?? [], behind = before.slice(before.length - frame.behind);
    frame.lines = [...before.slice(0, frame.same), ...frame.lines, ...behind.map(one => ({ ...one, start: one.start + frame.shift }))];
    told.set(frame.id, frame.lines);
  }
  return answer;
}

function open() {
  const opened = new WebSocket(`${location.origin.replace(/^http/, 'ws')}${address}/hand?window=${windowName}`);
  line = opened;
  line.addEventListener('message', event => {
    if (line === opened) answered?.(withAllLines(JSON.parse(event.data)));
  });
  line.addEventListener('close', () => { if (line === opened) gone(); });
}

function gone() {
  told.clear();
  line = null;
  answered?.(null);
}

function question(command) {
  if (!line) open();
  const on = line;
  return new Promise(resolve => {
    // A line that does not answer is closed, so that an answer that comes late is not taken for the next one's.
    const timer = setTimeout(() => on.close(), deadline);
    answered = answer => {
      clearTimeout(timer);
      answered = null;
      resolve(answer);
    };
    const send = () => on.send(JSON.stringify({ inside: state.inside, command: { frames: state.selection.join(','), ...command } }));
    if (on.readyState === WebSocket.OPEN) send();
    else on.addEventListener('open', send, { once: true });
  });
}

let asking = false, next = null;
async function askNext() {
  if (asking || !next) return;
  const { command, from } = next;
  next = null;
  asking = true;
  const answer = await question(command);
  asking = false;
  if (from.open && answer) from.show(answer, command);
  else if (from.open && next?.from !== from) from.missed?.();
  askNext();
}

// Asks what a drag would come to, as often as the pointer moves; what is answered is shown while it is open, and a question without an answer told.
export function asker(show, missed) {
  const from = { open: true, show, missed };
  return {
    ask(command) {
      next = { command, from };
      askNext();
    },
    close() {
      from.open = false;
      if (next?.from === from) next = null;
    },
  };
}

open();

// A line is for one spread.
watch(['spread'], () => {
  const before = line;
  gone();
  before?.close();
  open();
});
