import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';

const ROOT = new URL('../', import.meta.url).pathname;
const filesIn = (folder: string): string[] =>
  readdirSync(join(ROOT, folder), { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) return filesIn(path);
    return /\.ts$/.test(path) && !/\.test\.ts$/.test(path) ? [path] : [];
  });

describe('the names of the house', () => {
  it('are each exported by one file: a name means one thing', () => {
    const by = new Map<string, string[]>();
    for (const path of ['core', 'app', 'server', 'demo'].flatMap(filesIn))
      for (const [, name = ''] of readFileSync(join(ROOT, path), 'utf8').matchAll(
        /^export (?:async )?(?:const|function|type|interface|class|enum) (\w+)/gm,
      ))
        by.set(name, [...(by.get(name) ?? []), path]);
    const twice = [...by].filter(([, paths]) => new Set(paths).size > 1);
    expect(twice).toEqual([]);
    expect(by.size).toBeGreaterThan(500);
  });
});
