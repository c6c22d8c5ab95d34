/**
 * What every test stands on. A test fails when anything goes wrong in one of its pages: an error or React warning in
 * the console, an uncaught error, a rejected promise, a request that fails. What a test provokes it expects by name.
 */
import { test as base, expect, type BrowserContext, type Page } from '@playwright/test';

export { expect };

/** Seen in the console beside the request or response that says the same with its address. */
const SAID_TWICE = /^Failed to load resource/;
const REACT = /react|warning:|deprecated/i;

class Troubles {
  private readonly seen: string[] = [];
  private readonly expected: RegExp[] = [];

  /** Names what the test provokes: part of `409 POST /api/edits`, of a console message, or of an error. */
  expect(...provoked: RegExp[]): void {
    this.expected.push(...provoked);
  }

  get unexpected(): string[] {
    return this.seen.filter((one) => !this.expected.some((pattern) => pattern.test(one)));
  }

  watchContext(context: BrowserContext): void {
    context.pages().forEach((page) => this.watchPage(page));
    context.on('page', (page) => this.watchPage(page));
  }

  private watchPage(page: Page): void {
    page.on('console', (message) => {
      const text = message.text();
      const bad = message.type() === 'error' || (message.type() === 'warning' && REACT.test(text));
      if (bad && !SAID_TWICE.test(text)) this.seen.push(`console ${message.type()}: ${text}`);
    });
    page.on('pageerror', (error) => this.seen.push(`uncaught: ${error.message}`));
    page.on('crash', () => this.seen.push('the page crashed'));
    page.on('response', (response) => {
      if (response.status() >= 400)
        this.seen.push(`${response.status()} ${response.request().method()} ${pathOf(response.url())}`);
    });
    page.on('requestfailed', (request) => {
      // A page that is left ends its own requests.
      const why = request.failure()?.errorText ?? '';
      if (why !== 'net::ERR_ABORTED') this.seen.push(`${why} ${request.method()} ${pathOf(request.url())}`);
    });
  }
}

const pathOf = (url: string): string => {
  const { pathname, search } = new URL(url);
  return pathname + search;
};

/** The console of the page, its errors and its requests, for every page of the test. */
export const test = base.extend<{ troubles: Troubles }>({
  troubles: [
    async ({ browser, context }, use) => {
      const troubles = new Troubles();
      troubles.watchContext(context);
      // Also those that a test opens itself: another phone, another window.
      const newContext = browser.newContext.bind(browser);
      browser.newContext = async (...options) => {
        const made = await newContext(...options);
        troubles.watchContext(made);
        return made;
      };
      await use(troubles);
      browser.newContext = newContext;
      expect(troubles.unexpected, 'what went wrong in the pages').toEqual([]);
    },
    { auto: true },
  ],
});
