/** Whose workspace is open. */
export type Identity =
  | {
      readonly kind: 'student';
      readonly deskId: string;
      readonly studentId: string;
      readonly studentName: string;
    }
  | { readonly kind: 'files alone' };

/** The name of its database, and of what is kept beside it: one for each desk and student, one for files alone. */
export function databaseName(identity: Identity): string {
  return identity.kind === 'files alone'
    ? 'juncture/files'
    : `juncture/${identity.deskId}/${identity.studentId}`;
}

/** Desk and student in one word, as a request to the desk names them. */
export function deskStudent({ deskId, studentId }: Extract<Identity, { kind: 'student' }>): string {
  return encodeURIComponent(`${deskId}/${studentId}`);
}
