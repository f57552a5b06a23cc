// Asks the server, and tells every way it can fail as one kind of problem.

const token = document.querySelector('meta[name="request-token"]').content;

export const randomName = () => [...crypto.getRandomValues(new Uint8Array(12))].map(byte => byte.toString(16).padStart(2, '0')).join('');

// Which window this is: what it does itself is no surprise to it.
export const windowName = randomName();

export const headers = () => ({ RequestVerificationToken: token, 'Formatum-Window': windowName });

export const unreachable = 'The server does not answer. Nothing is lost; try again when it runs.';
const failed = 'That did not work. Look at it again and retry.';

export function valuesOf(pairs) {
  const values = new FormData();
  for (const [name, value] of Object.entries(pairs)) values.append(name, value);
  return values;
}

// What a server behind a gateway that finds it gone answers with, or one that has too much to do.
const goneStatus = new Set([502, 503, 504]);

export class Problem extends Error {
  constructor(status, body = null) {
    super(body?.detail ?? (status === 0 ? unreachable : failed));
    this.status = status;
    this.errors = body?.errors ?? {};
  }

  // Nobody answered: whether the server has done what it was asked is not known.
  get isGone() { return this.status === 0; }
}

// The problem details of an answer that refused; null where it carries none.
export function problemOf(text) {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

// Gives the answer's text, and what the header Formatum-Answer says. Throws a Problem.
export async function ask(method, address, { json, form, key, seconds = 90 } = {}) {
  const sent = { method, headers: headers(), body: form, signal: AbortSignal.timeout(seconds * 1000) };
  if (json !== undefined) {
    sent.headers['Content-Type'] = 'application/json';
    sent.body = JSON.stringify(json);
  }
  if (key) sent.headers['Formatum-Edit'] = key;
  let answer, text;
  try {
    answer = await fetch(address, sent);
    text = await answer.text();
  } catch {
    throw new Problem(0);
  }
  if (goneStatus.has(answer.status)) throw new Problem(0);
  if (!answer.ok) throw new Problem(answer.status, problemOf(text));
  return { text, head: problemOf(answer.headers.get('Formatum-Answer') ?? '') };
}

// Waits until the server answers again.
export async function answersAgain() {
  for (let pause = 250; ; pause = Math.min(2000, pause * 1.5)) {
    await new Promise(resolve => { setTimeout(resolve, pause); });
    const answer = await fetch('/health', { cache: 'no-store', signal: AbortSignal.timeout(5000) }).catch(() => null);
    if (answer?.ok) return;
  }
}
