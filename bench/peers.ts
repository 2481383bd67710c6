import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';

const KEPT_IN = join('node_modules', '.cache', 'bench-peers');

/** A package that is measured against, fetched with what it needs for benchmarks only. @param spec name@version */
export async function peer<Module>(spec: string): Promise<Module> {
  const folder = resolve(KEPT_IN, spec);
  const name = spec.slice(0, spec.lastIndexOf('@'));
  if (!existsSync(join(folder, 'node_modules', name))) {
    mkdirSync(folder, { recursive: true });
    const options = ['--no-save', '--no-audit', '--no-fund', '--ignore-scripts', '--silent'];
    execFileSync('npm', ['install', spec, '--prefix', folder, ...options]);
  }
  const main = createRequire(join(folder, 'index.js')).resolve(name);
  return (await import(pathToFileURL(main).href)) as Module;
}
