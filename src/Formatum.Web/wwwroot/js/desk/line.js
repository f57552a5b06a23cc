// The line on which drags are asked about: as many questions are under way as its delay needs, and the newest pointer position wins.
import { address } from './parts.js';
import { isAnswered } from './away.js';
import { state, watch } from './state.js';
import { windowName } from '../shared/http.js';

// A question that is not answered by then is given up; the next one may be.
const deadline = 4000;

// No more questions are under way, however long the line takes.
const mostUnderWay = 24;

let line = null;

// The questions that are under way, in the order of their answers.
let asked = [];

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
    if (line === opened) answered(withAllLines(JSON.parse(event.data)));
  });
  line.addEventListener('close', () => { if (line === opened) gone(); });
}

function gone() {
  letGo();
  askNext();
}

// Questions end with the line they were asked on. What they are told of it may ask anew, and open another.
function letGo() {
  const lost = asked;
  told.clear();
  line = null;
  asked = [];
  lost.forEach(question => end(question, null));
}

// ---- How many at once --------------------------------------------------------------------------------------------------------------------

// The browser draws no more often, in milliseconds.
const drawsEvery = 16;

// What an answer took the server, and the way there and back beyond that: the least of the last few, for what waits behind others takes longer.
const ways = [];
let took = 0, mostAtOnce = 1;

function learn(question, answer) {
  took = answer?.took ?? took;
  ways.push(Math.max(0, performance.now() - question.sentAt - took));
  if (ways.length > 20) ways.shift();
  mostAtOnce = Math.min(mostUnderWay, 1 + Math.round(Math.min(...ways) / Math.max(drawsEvery, took)));
}

function answered(answer) {
  // Also that something cannot be done is an answer.
  isAnswered();
  const question = asked.shift();
  if (!question) return;
  learn(question, answer);
  end(question, answer);
  askNext();
}

function end({ command, from, timer }, answer) {
  clearTimeout(timer);
  if (!from.open) return;
  if (answer) from.show(answer, command);
  else if (next?.from !== from && !asked.some(other => other.from === from)) from.missed?.();
}

let next = null;
function askNext() {
  if (!next || asked.length >= mostAtOnce) return;
  const { command, from } = next;
  next = null;
  if (!line) open();
  const on = line, question = { command, from, sentAt: performance.now() };
  // A line that does not answer is closed, so that an answer that comes late is not taken for the next one's.
  question.timer = setTimeout(() => {
    on.close();
    if (line === on) gone();
  }, deadline);
  asked.push(question);
  const text = JSON.stringify({ inside: state.inside, command: { frames: state.selection.join(','), ...command } });
  const send = () => {
    question.sentAt = performance.now();
    on.send(text);
  };
  if (on.readyState === WebSocket.OPEN) send();
  else on.addEventListener('open', send, { once: true });
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
  letGo();
  before?.close();
  if (!line) open();
  askNext();
});
