import { median as middle } from 'd3-array';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type BrowserContext } from '@playwright/test';
import { CHROMIUM_ARGS } from '../playwright.config';

/** A figure of a benchmark: a ratio within one run wherever speed is meant, so that it holds on any machine. */
export interface Figure {
  name: string;
  value: number;
  unit: string;
  bar: number;
  ok: boolean;
  /** The worst case, and what was compared with what. */
  worst: string;
}

/** A figure that must not be above its bar. */
export function atMost(bar: number, figure: Omit<Figure, 'bar' | 'ok'>): Figure {
  return { ...figure, value: Math.round(figure.value * 1000) / 1000, bar, ok: figure.value <= bar };
}

export const median = (values: readonly number[]): number => middle(values) ?? Number.NaN;

/** Does something in a browser that has never seen the page: empty profile, empty caches. */
export async function inColdBrowser<Result>(work: (context: BrowserContext) => Promise<Result>): Promise<Result> {
  const context = await chromium.launchPersistentContext(mkdtempSync(join(tmpdir(), 'inkpath-cold-')), {
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: CHROMIUM_ARGS,
    // What is kept for offline use would be fetched behind what is measured.
    serviceWorkers: 'block',
    viewport: { width: 1280, height: 800 },
  });
  try {
    return await work(context);
  } finally {
    await context.close();
  }
}

/** Puts rows straight into a database of the page, as the ledger keeps them. A text, for what a compiler adds to a function is not in the page. */
export const PUT = `
  const put = (name, rows) => new Promise((resolve, reject) => {
    const opening = indexedDB.open(name);
    opening.onupgradeneeded = () => opening.result.createObjectStore('kept');
    opening.onerror = reject;
    opening.onsuccess = () => {
      const transaction = opening.result.transaction('kept', 'readwrite');
      for (const [key, value] of rows) transaction.objectStore('kept').put(value, key);
      transaction.oncomplete = () => { opening.result.close(); resolve(); };
      transaction.onerror = reject;
    };
  });
`;
