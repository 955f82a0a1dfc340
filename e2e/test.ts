import { test as plain } from '@playwright/test';

export { expect, type Page } from '@playwright/test';

/** Most characters of a page that a failed test shows. */
const MOST_SHOWN = 6000;

/** Every browser test also fails when a page or its worker does what our security policy forbids, or throws without being caught. One that fails says what stood on its page. */
export const test = plain.extend<{ watched: undefined }>({
  watched: [
    async ({ context }, use, info) => {
      const wrong: string[] = [];
      await context.addInitScript(() => {
        addEventListener('securitypolicyviolation', (e) => {
          console.error(`securitypolicyviolation: ${e.violatedDirective} ${e.blockedURI} ${e.sourceFile}`);
        });
      });
      context.on('console', (m) => {
        if (/securitypolicyviolation|Content.Security.Policy/i.test(m.text())) wrong.push(m.text());
      });
      context.on('weberror', (e) => wrong.push(String(e.error())));
      await use(undefined);
      if (info.status !== info.expectedStatus) {
        for (const page of context.pages()) {
          const shown = await page.locator('body').ariaSnapshot({ timeout: 5000 });
          console.log(`${info.title}: the page ${page.url()} when it failed\n${shown.slice(0, MOST_SHOWN)}`);
        }
      }
      plain.expect(wrong).toEqual([]);
    },
    { auto: true },
  ],
});
