/** Whose workspace is open. */
export type Identity =
  | {
      readonly kind: 'student';
      readonly deskId: string;
      readonly studentId: string;
      readonly studentName: string;
    }
  | { readonly kind: 'files alone' }
  /** What somebody gave to be looked at: nothing that is done in it is kept. */
  | { readonly kind: 'shown'; readonly by: string };

/** The name of its database, and of what is kept beside it: one for each desk and student, one for files alone. */
export function databaseName(identity: Identity): string {
  switch (identity.kind) {
    case 'files alone':
      return 'juncture/files';
    case 'shown':
      return 'juncture/shown';
    case 'student':
      return `juncture/${identity.deskId}/${identity.studentId}`;
  }
}

/** Desk and student in one word, as a request to the desk names them. */
export function deskStudent({ deskId, studentId }: Extract<Identity, { kind: 'student' }>): string {
  return encodeURIComponent(`${deskId}/${studentId}`);
}
