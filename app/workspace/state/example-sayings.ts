import { decodeModel } from '#core/saying/model.ts';
import { sayingKey } from '#core/saying/saying-of.ts';
import { says } from '#core/saying/says.ts';
import type { Workspace } from '../workspace.ts';

/** For tests without a worker: works out what all remarks of a workspace say. */
export function workOutHere(workspace: Workspace, modelBytes: Uint8Array): void {
  const model = decodeModel(modelBytes);
  const remarks = [...workspace.records.remarks.values()];
  workspace.showSayings(new Map(remarks.map((remark) => [sayingKey(remark), says(remark, model)])));
}
