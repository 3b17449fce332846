import type { Page } from '@playwright/test';

/**
 * Words of the page of which a part is cut off: by the box that they stand in, or with dots at their end. What scrolls into sight is
 * not cut, the lanes of Steps among it. Each with by how many px.
 */
export const cutWords = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const cut: string[] = [];
    for (const of of document.querySelectorAll<HTMLElement>('body *')) {
      const hasWords = [...of.childNodes].some((node) => node.nodeType === Node.TEXT_NODE && node.textContent!.trim() !== ''); // prettier-ignore
      if (!hasWords || of.closest('script, style, [aria-label^="Hear "], [aria-label^="Mute "], [aria-label^="Solo "]')) continue; // prettier-ignore
      const range = document.createRange();
      range.selectNodeContents(of);
      const words = range.getBoundingClientRect();
      // Below its letters a line has some room of its own.
      const beneath = 0.2 * parseFloat(getComputedStyle(of).fontSize);
      for (let box: HTMLElement | null = of; box && words.width > 0; box = box.parentElement) {
        const { overflow, overflowX, overflowY, clipPath } = getComputedStyle(box);
        const { x, y, width, height } = box.getBoundingClientRect();
        // Boxes clip within their borders.
        const [left, top] = [x + box.clientLeft, y + box.clientTop];
        const [right, bottom] = [x + width - box.clientLeft, y + height - box.clientTop];
        const scrolls = [overflowX, overflowY].some((way) => way === 'auto' || way === 'scroll');
        // For screen readers alone.
        if (scrolls || clipPath !== 'none' || width <= 1 || height <= 1) break;
        if (overflow === 'visible') continue;
        const by = Math.max(left - words.left, words.right - right, top - words.top - beneath, words.bottom - bottom - beneath); // prettier-ignore
        if (by > 1) cut.push(`${of.textContent} by ${by.toFixed(0)}`);
        if (by > 1) break;
      }
    }
    return cut;
  });
