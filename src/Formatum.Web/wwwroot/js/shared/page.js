// What every page needs of htmx: the request token, and problems told in words.
import { headers, Problem, problemOf } from './http.js';
import { isPressed, untilLetGo } from './pointer.js';
import { tell } from './notices.js';

document.addEventListener('htmx:configRequest', event => Object.assign(event.detail.headers, headers()));
document.addEventListener('htmx:responseError', event => tell(new Problem(event.detail.xhr.status, problemOf(event.detail.xhr.responseText)).message));
document.addEventListener('htmx:sendError', () => tell(new Problem(0).message));

// What is being pressed is taken away by no answer.
document.addEventListener('htmx:beforeSwap', event => {
  const { target, serverResponse, shouldSwap } = event.detail;
  if (!shouldSwap || !isPressed(target)) return;
  event.preventDefault();
  untilLetGo(target).then(() => window.htmx.swap(target, serverResponse, { swapStyle: 'innerHTML' }));
});
