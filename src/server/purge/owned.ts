import type { Model, ModelStatic } from 'sequelize';
import type { ServerContext } from '../context';
import type { FileStore } from '../stores/file-store';

/** A row that belongs to a project and has a folder of files of its own. */
interface OwnedRow extends Model {
  readonly id: string;
  readonly projectId: string;
}

export interface OwnedTable {
  readonly store: FileStore;
  /** The name in the store below which each row has one by its id. */
  readonly files: 'footage' | 'takes' | 'exports';
  readonly table: ModelStatic<OwnedRow>;
}

/** The tables whose rows belong to projects and have files. */
export const ownedTables = ({
  db: { footage, takes, exports },
  stores,
}: ServerContext): readonly OwnedTable[] =>
  // What they share is all that is asked of them here.
  [
    { store: stores.files, files: 'footage', table: footage as unknown as ModelStatic<OwnedRow> },
    { store: stores.takes, files: 'takes', table: takes as unknown as ModelStatic<OwnedRow> },
    { store: stores.files, files: 'exports', table: exports as unknown as ModelStatic<OwnedRow> },
  ];
