import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { pathToFileURL } from 'node:url';

const KEPT_IN = join('node_modules', '.cache', 'bench-peers');

/** A package that is measured against, fetched for benchmarks only. @param spec name@version */
export async function peer<Module>(spec: string): Promise<Module> {
  const folder = join(KEPT_IN, spec);
  if (!existsSync(join(folder, 'package'))) {
    mkdirSync(folder, { recursive: true });
    const pack = execFileSync('npm', ['pack', spec, '--silent'], { cwd: folder, encoding: 'utf8' }).trim();
    execFileSync('tar', ['xzf', pack], { cwd: folder });
  }
  const { main } = JSON.parse(readFileSync(join(folder, 'package', 'package.json'), 'utf8')) as {
    main?: string;
  };
  return (await import(pathToFileURL(resolve(folder, 'package', main ?? 'index.js')).href)) as Module;
}
