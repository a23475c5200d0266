/** What can be deleted, listed as such, and brought back. */
export const DELETED_KINDS = ['project', 'footage', 'take'] as const;
export type DeletedKind = (typeof DELETED_KINDS)[number];
