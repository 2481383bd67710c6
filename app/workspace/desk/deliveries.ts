import type { Submission } from '#core/model/work.ts';
import { handIn } from './desk-client.ts';
import { putAttempt } from './facts.ts';
import type { Workspace } from '../workspace.ts';

/** What was sent and waits to go to the course desk. */
export class Deliveries {
  private underWay: Promise<void> | null = null;

  constructor(private readonly workspace: Workspace) {}

  /** Tries to deliver what waits to go; one delivery at a time. */
  deliver(): Promise<void> {
    this.underWay ??= this.deliverAll().finally(() => {
      this.underWay = null;
    });
    return this.underWay;
  }

  private async deliverAll(): Promise<void> {
    for (const submission of this.workspace.records.submissions.values())
      if (submission.state.kind === 'waiting to go') await this.deliverOne(submission);
  }

  private async deliverOne(submission: Submission): Promise<void> {
    const { workspace } = this;
    const paper = await workspace.fileBytes(submission.paper.hash);
    const response = await workspace.fileBytes(submission.response.hash);
    if (paper === null || response === null) return;
    const answer = await handIn(submission, paper, response, workspace.caller);
    switch (answer.kind) {
      case 'ok':
        await workspace.save((writing) => putAttempt(writing, answer.value));
        break;
      case 'refused':
        await workspace.save((writing) =>
          writing.put('submissions', { ...submission, state: { kind: 'refused', reason: answer.why } }),
        );
        break;
      case 'signed out':
      case 'not reached':
      case 'unreadable':
        workspace.store.setState({ connection: answer.kind === 'signed out' ? 'signed out' : 'not reached' });
    }
  }
}
