/** Names under which programs write remarks of their own. */
const MACHINE_NAME = /\b(auto(mat(ic|ed))?|bot|checker|machine|script|detector)\b/i;

/** Whether an author's name says that a program wrote the remark. */
export function isMachine(author: string): boolean {
  return MACHINE_NAME.test(author);
}
