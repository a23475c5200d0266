import type { Model, ModelStatic } from 'sequelize';
import type { Database } from './connection';

/** A row that belongs to a project and has a folder of files of its own. */
interface OwnedRow extends Model {
  readonly id: string;
  readonly projectId: string;
}

export interface OwnedTable {
  /** The folder below the data folder in which each row has one by its id. */
  readonly folder: 'footage' | 'takes' | 'exports';
  readonly table: ModelStatic<OwnedRow>;
}

/** The tables whose rows belong to projects and have files. */
export const ownedTables = ({ footage, takes, exports }: Database): readonly OwnedTable[] =>
  // What they share is all that is asked of them here.
  [
    { folder: 'footage', table: footage as unknown as ModelStatic<OwnedRow> },
    { folder: 'takes', table: takes as unknown as ModelStatic<OwnedRow> },
    { folder: 'exports', table: exports as unknown as ModelStatic<OwnedRow> },
  ];
