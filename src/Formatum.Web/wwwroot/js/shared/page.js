// What every page needs of htmx: the request token, and problems told in words.
import { headers, Problem, problemOf } from './http.js';
import { tell } from './notices.js';

document.addEventListener('htmx:configRequest', event => Object.assign(event.detail.headers, headers()));
document.addEventListener('htmx:responseError', event => tell(new Problem(event.detail.xhr.status, problemOf(event.detail.xhr.responseText)).message));
document.addEventListener('htmx:sendError', () => tell(new Problem(0).message));
