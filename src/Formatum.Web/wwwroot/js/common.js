// What every sheet needs: the request token on posts, and errors told in words.
const requestToken = document.querySelector('meta[name="request-token"]').content;

document.addEventListener('htmx:configRequest', event => {
  event.detail.headers['RequestVerificationToken'] = requestToken;
});

function tell(message) {
  const notice = document.createElement('div');
  notice.className = 'notice';
  const words = document.createElement('span');
  words.textContent = message;
  const close = document.createElement('button');
  close.type = 'button';
  close.textContent = 'Close';
  close.addEventListener('click', () => notice.remove());
  notice.append(words, close);
  const notices = document.getElementById('notices');
  while (notices.children.length > 2) notices.firstChild.remove();
  notices.append(notice);
}

// Tells when the page that comes next is there.
function tellAfterwards(message) {
  sessionStorage.setItem('tell', message);
}
if (sessionStorage.getItem('tell')) {
  tell(sessionStorage.getItem('tell'));
  sessionStorage.removeItem('tell');
}

// The problem details of an answer that refused; null where it carries none.
function problemOf(text) {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

const unreachable = 'The server does not answer. Nothing is lost; try again when it runs.';

document.addEventListener('htmx:responseError', event => {
  const problem = problemOf(event.detail.xhr.responseText);
  const refused = new CustomEvent('formatum:refused', { detail: { problem, status: event.detail.xhr.status }, cancelable: true });
  if (document.dispatchEvent(refused)) tell(problem?.detail ?? 'That did not work. Look at it again and retry.');
});
document.addEventListener('htmx:sendError', () => tell(unreachable));

// Follows a pointer that went down, until it is let go or taken away; onEnd is told how it ended. Gives a function that lets go by itself.
function followPointer(target, onMove, onEnd = () => {}) {
  const end = event => {
    target.removeEventListener('pointermove', onMove);
    target.removeEventListener('pointerup', end);
    target.removeEventListener('pointercancel', end);
    onEnd(event);
  };
  target.addEventListener('pointermove', onMove);
  target.addEventListener('pointerup', end);
  target.addEventListener('pointercancel', end);
  return () => end({ type: 'pointercancel' });
}
