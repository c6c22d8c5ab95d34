/** The pairing page: all that a client sees that has not paired yet. */
import type { Middleware } from 'koa';
import { readBody } from './body';
import type { Guard } from './guard';
import { ProblemError } from '../problemError';

const escape = (text: string): string => text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);

const page = (message: string, code: string): string => `<!doctype html>
<html lang="en-GB"><head><meta charset="utf-8"><title>Pair with Taxiarch</title>
<meta name="viewport" content="width=device-width, initial-scale=1">
<style>
  body { margin: 0; min-height: 100vh; display: grid; place-items: center; background: #12100d; color: #efe7d8;
    font: 16px/1.5 system-ui, sans-serif; }
  form { width: min(22rem, 88vw); display: grid; gap: 16px; }
  h1 { font-size: 22px; margin: 0; } p { margin: 0; } .why { color: #f08a73; }
  input { font: 600 24px/1 ui-monospace, monospace; letter-spacing: .2em; text-align: center; padding: 16px; border-radius: 6px;
    border: 1px solid #5b5140; background: #1d1a15; color: inherit; text-transform: uppercase; }
  button { font: 600 16px/1 system-ui, sans-serif; min-height: 48px; border: 0; border-radius: 6px; background: #d9a441; color: #12100d; }
</style></head><body>
<form method="post" action="/pair"><h1>Pair with Taxiarch</h1>
<p>Type the code that stands in the window where Taxiarch was started.</p>
${message ? `<p class="why" role="alert">${escape(message)}</p>` : ''}
<label for="code">Pairing code</label>
<input id="code" name="code" autocomplete="off" autocapitalize="characters" maxlength="12" autofocus value="${escape(code)}">
<button>Pair</button></form></body></html>`;

/** Most bytes of the form: a code and little more */
const MOST_FORM = 1024;

/** Lets paired clients through; shows all others the pairing page, or a 401 where a program asks. */
export const pairing =
  (guard: Guard): Middleware =>
  async (ctx, next) => {
    if (guard.code === undefined) {
      await next();
      return;
    }
    if (ctx.path === '/pair' && ctx.method === 'POST') {
      const form = new URLSearchParams((await readBody(ctx.req, MOST_FORM)).toString('utf8'));
      const tried = guard.pair(form.get('code') ?? '', ctx.ip, Date.now());
      if ('cookie' in tried) {
        ctx.set('Set-Cookie', tried.cookie);
        ctx.redirect('/');
      } else {
        ctx.status = tried.wait ? 429 : 403;
        ctx.type = 'html';
        ctx.body = page(tried.refused, '');
      }
    } else if (guard.admits(ctx.req)) {
      if (ctx.path === '/pair') ctx.redirect('/');
      else await next();
    } else if (ctx.path.startsWith('/api/')) {
      throw new ProblemError('not-paired', 'Pair this device first: open Taxiarch in its browser and type the code.');
    } else {
      ctx.status = ctx.path === '/' || ctx.path === '/pair' ? 200 : 401;
      ctx.type = 'html';
      ctx.body = page('', String(ctx.query['code'] ?? '').slice(0, 12));
    }
  };
