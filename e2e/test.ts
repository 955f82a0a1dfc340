import { test as plain } from '@playwright/test';

export { expect, type Page } from '@playwright/test';

/** Every browser test also fails when a page or its worker does what our security policy forbids, or throws without being caught. */
export const test = plain.extend<{ watched: undefined }>({
  watched: [
    async ({ context }, use) => {
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
      plain.expect(wrong).toEqual([]);
    },
    { auto: true },
  ],
});
