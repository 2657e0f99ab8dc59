import type { Page } from '@playwright/test';

/**
 * What is wrong with the words on the screen as they lie: two that overlap, what is cut off without a way to read it, what is wider than the page or lies
 * under the due line.
 */
function troubles(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const found: string[] = [];
    const isSeen = (element: Element) => element.checkVisibility({ opacityProperty: true, visibilityProperty: true });
    const root = document.documentElement;
    if (root.scrollWidth > root.clientWidth) {
      const widest = [...document.querySelectorAll('#place *')].find(
        (each) => each.getBoundingClientRect().right > root.clientWidth + 1 && isSeen(each),
      );
      found.push(`the page is ${root.scrollWidth - root.clientWidth} px too wide, by ${widest?.outerHTML.slice(0, 60) ?? ''}`);
    }
    const line = document.querySelector('[aria-label="Due line"]')?.getBoundingClientRect();
    const place = document.getElementById('place');
    const at = place?.getBoundingClientRect();
    if (line && at && at.bottom > line.top + 1) found.push('the place reaches under the due line');
    const boxes: { text: string; of: Element; left: number; right: number; top: number; bottom: number }[] = [];
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const of = node.parentElement;
      const text = node.textContent?.trim() ?? '';
      if (!of || text === '' || !isSeen(of) || of.closest('.unseen-text, .skip, svg, script, style, noscript')) continue;
      // Words that are only read aloud or copied are clipped to nothing.
      const clip = getComputedStyle(of).clipPath;
      if (clip !== 'none') continue;
      const range = document.createRange();
      range.selectNodeContents(node);
      const size = Number.parseFloat(getComputedStyle(of).fontSize);
      for (const { left, right, top: high, bottom: low } of range.getClientRects()) {
        if (right - left < 2 || low - high < 2) continue;
        // The box of a line is higher than its letters are.
        const more = Math.max(0, (low - high - size * 0.95) / 2);
        const [top, bottom] = [high + more, low - more];
        const box = { text: text.slice(0, 30), of, left, right, top, bottom };
        // What is scrolled away, or cut by what scrolls, is not seen here.
        let isCut = false;
        for (let around: Element | null = of; around; around = around.parentElement) {
          const { overflowX, overflowY } = getComputedStyle(around);
          if (overflowX === 'visible' && overflowY === 'visible') continue;
          const frame = around.getBoundingClientRect();
          box.left = Math.max(box.left, frame.left);
          box.right = Math.min(box.right, frame.right);
          box.top = Math.max(box.top, frame.top);
          box.bottom = Math.min(box.bottom, frame.bottom);
          if (box.right - box.left < 2 || box.bottom - box.top < 2) isCut = true;
        }
        if (!isCut) boxes.push(box);
      }
    }
    for (const [index, one] of boxes.entries())
      for (const other of boxes.slice(index + 1)) {
        if (one.of === other.of || one.of.contains(other.of) || other.of.contains(one.of)) continue;
        const wide = Math.min(one.right, other.right) - Math.max(one.left, other.left);
        const high = Math.min(one.bottom, other.bottom) - Math.max(one.top, other.top);
        // Line boxes of large type reach a little over the next.
        if (wide > 2 && high > Math.min(one.bottom - one.top, other.bottom - other.top) * 0.35) {
          const isLayered = (element: Element) => element.closest('.head, .mended, .rest, [role="dialog"], thead, .stuck, .v-overlay');
          if (isLayered(one.of) !== isLayered(other.of)) continue;
          found.push(`“${one.text}” lies on “${other.text}”`);
        }
      }
    // A name that is read from right to left tears no length of time apart: its figures stand in their order.
    const texts = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = texts.nextNode(); node; node = texts.nextNode()) {
      const length = /\d+ h \d\d/.exec(node.textContent ?? '');
      if (!length || !node.parentElement || !isSeen(node.parentElement) || node.parentElement.closest('.unseen-text')) continue;
      const at = (index: number) => {
        const range = document.createRange();
        range.setStart(node, index);
        range.setEnd(node, index + 1);
        return range.getBoundingClientRect();
      };
      const [first, last] = [at(length.index), at(length.index + length[0].length - 1)];
      if (first.width > 1 && last.width > 1 && Math.abs(first.top - last.top) < 3 && first.left >= last.left)
        found.push(`“${length[0]}” is torn apart`);
    }
    for (const button of document.querySelectorAll<HTMLElement>('.v-btn, h1, h2, .chosen-of button')) {
      if (!isSeen(button) || button.scrollWidth <= button.clientWidth + 1) continue;
      found.push(`“${button.textContent.trim().slice(0, 40)}” is cut off`);
    }
    return [...new Set(found)].slice(0, 6);
  });
}

/** What is wrong once the page has settled: what changes with its size is drawn a moment after. */
export async function lasting(page: Page): Promise<string[]> {
  await page.waitForTimeout(120);
  let found = await troubles(page);
  for (let more = 0; more < 20 && found.length > 0; more += 1) {
    await page.waitForTimeout(150);
    found = await troubles(page);
  }
  return found;
}

/** Widths and heights that each screen is looked at in. */
export const SIZES = [
  [320, 700],
  [390, 844],
  [1280, 800],
  [1920, 1080],
  // A window of 1280 × 800 and a phone, enlarged to twice their size.
  [640, 400],
  [195, 422],
] as const;
