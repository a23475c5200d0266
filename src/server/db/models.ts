import type { Model } from 'sequelize';
import {
  DataTypes,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type Sequelize,
} from 'sequelize';
import type { AnalysisStatus } from '@/contract/analyses';
import type { FootageStatus } from '@/contract/footage';
import type { JobStatus, JobType } from '@/contract/jobs';
import type { TakeStatus } from '@/contract/takes';

type Row<M extends Model> = Model<InferAttributes<M>, InferCreationAttributes<M>>;

export interface ProjectRow extends Row<ProjectRow> {
  id: string;
  name: string;
  document: string;
  revision: number;
  /**
   * The revision that the document and the steps of its undo history are of; `changes` lead from it
   * to the newest.
   */
  checkpoint: number;
  /** How many of the steps are done; the others were undone. */
  done: number;
  /** What the list tells of the document; null when it could not be read. */
  width: CreationOptional<number | null>;
  height: CreationOptional<number | null>;
  rateNum: CreationOptional<number | null>;
  rateDen: CreationOptional<number | null>;
  /** Ticks. */
  duration: CreationOptional<number | null>;
  deletedAt: Date | null;
  createdAt: CreationOptional<Date>;
  updatedAt: CreationOptional<Date>;
}

/** What one save changed since the revision before it. */
export interface ChangeRow extends Row<ChangeRow> {
  projectId: string;
  revision: number;
  /** Names the save, so that one that is sent twice is known. */
  key: string;
  /** A `HistoryDelta` as JSON text. */
  delta: string;
  /** Milliseconds since 1970. */
  savedAt: number;
}

/** One step of a project's undo history, done or undone. */
export interface StepRow extends Row<StepRow> {
  projectId: string;
  /** Steps in order of their positions, which follow each other. */
  position: number;
  /** A `HistoryEntry` as JSON text. */
  step: string;
}

/** A document as it was saved once, to come back to when the newest can't be read. */
export interface RevisionRow extends Row<RevisionRow> {
  projectId: string;
  revision: number;
  /** The document's text, compressed by gzip, whose checksum tells damage. */
  document: Buffer;
  /** Milliseconds since 1970. */
  savedAt: number;
}

export interface FootageRow extends Row<FootageRow> {
  id: string;
  projectId: string;
  name: string;
  role: string;
  status: FootageStatus;
  error: string | null;
  /** JSON list of sentences on what was noticed or mended. */
  notes: string;
  /** Name of the original in the footage's folder. */
  file: string;
  bytes: number;
  /** JSON of `MediaFacts` once probed. */
  facts: string | null;
  hasPointer: boolean;
  /** JSON list of words that a person gave it. */
  tags: CreationOptional<string>;
  /** The part that is placed, in ticks of the recording; null for its start and end. */
  inPoint: CreationOptional<number | null>;
  outPoint: CreationOptional<number | null>;
  /** The footage of another project that it is a copy of. */
  origin: CreationOptional<string | null>;
  deletedAt: Date | null;
  createdAt: CreationOptional<Date>;
  updatedAt: CreationOptional<Date>;
}

/** What was found out about a recording, or is being found out. */
export interface AnalysisRow extends Row<AnalysisRow> {
  id: string;
  footageId: string;
  projectId: string;
  kind: string;
  /** JSON of what was asked for, where there is more than one thing to ask; else empty. */
  parameters: string;
  /** Of the kind when it was made. */
  version: number;
  status: AnalysisStatus;
  error: string | null;
  /** Tells the recording's content; null where a result serves for this recording only. */
  fingerprint: string | null;
  /** JSON of a few numbers. */
  summary: string;
  provenance: 'recorded' | 'found' | 'corrected' | null;
  /** 0 to 1. */
  confidence: number | null;
  createdAt: CreationOptional<Date>;
  updatedAt: CreationOptional<Date>;
}

export interface JobRow extends Row<JobRow> {
  id: string;
  type: JobType;
  projectId: string;
  /** Id of the footage, export or analysis it works on. */
  subject: string;
  status: JobStatus;
  progress: number;
  message: string;
  attempts: number;
  owner: string | null;
  leaseUntil: number;
  createdAt: CreationOptional<Date>;
  updatedAt: CreationOptional<Date>;
}

export interface ExportRow extends Row<ExportRow> {
  id: string;
  projectId: string;
  name: string;
  /** JSON of `ExportSettings`. */
  settings: string;
  /** JSON of `Manifest`: what is rendered; of older exports the document alone. */
  document: string;
  /** JSON of `ExportResult` when done. */
  result: string | null;
  /** JSON of `ExportProof`, once its covers were looked under. */
  proof: CreationOptional<string | null>;
  createdAt: CreationOptional<Date>;
  updatedAt: CreationOptional<Date>;
}

export interface TakeRow extends Row<TakeRow> {
  id: string;
  projectId: string;
  stepId: string | null;
  kind: string;
  /** Counts the takes of a step, from 1. */
  number: number;
  status: TakeStatus;
  reason: string | null;
  seconds: number;
  /** JSON of `TakeSetup`. */
  setup: string;
  /** JSON: footage id by track name, once kept. */
  footage: string;
  /** When the recording tab was last heard of, ms since 1970. */
  seenAt: number;
  createdAt: CreationOptional<Date>;
  updatedAt: CreationOptional<Date>;
}

export interface PresetRow extends Row<PresetRow> {
  id: string;
  kind: string;
  name: string;
  /** JSON. */
  value: string;
  createdAt: CreationOptional<Date>;
  updatedAt: CreationOptional<Date>;
}

// New objects each time: Sequelize writes the column's name into the description it is given.
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const id = () => ({ type: DataTypes.STRING, primaryKey: true });
const dates = () => ({
  createdAt: { type: DataTypes.DATE, allowNull: false },
  updatedAt: { type: DataTypes.DATE, allowNull: false },
});

/** The tables, bound to a connection. Explicit model names, since a bundler renames classes. */
export function defineModels(sequelize: Sequelize) {
  return {
    projects: sequelize.define<ProjectRow>(
      'project',
      {
        id: id(),
        name: text(),
        document: text(),
        revision: { type: DataTypes.INTEGER, allowNull: false },
        checkpoint: { type: DataTypes.INTEGER, allowNull: false },
        done: { type: DataTypes.INTEGER, allowNull: false },
        width: DataTypes.INTEGER,
        height: DataTypes.INTEGER,
        rateNum: DataTypes.INTEGER,
        rateDen: DataTypes.INTEGER,
        duration: DataTypes.BIGINT,
        deletedAt: DataTypes.DATE,
        ...dates(),
      },
      { tableName: 'projects' },
    ),
    analyses: sequelize.define<AnalysisRow>(
      'analysis',
      {
        id: id(),
        footageId: text(),
        projectId: text(),
        kind: text(),
        parameters: text(),
        version: { type: DataTypes.INTEGER, allowNull: false },
        status: text(),
        error: DataTypes.TEXT,
        fingerprint: DataTypes.TEXT,
        summary: text(),
        provenance: DataTypes.STRING,
        confidence: DataTypes.FLOAT,
        ...dates(),
      },
      { tableName: 'analyses' },
    ),
    changes: sequelize.define<ChangeRow>(
      'change',
      {
        projectId: { type: DataTypes.STRING, primaryKey: true },
        revision: { type: DataTypes.INTEGER, primaryKey: true },
        key: text(),
        delta: text(),
        savedAt: { type: DataTypes.INTEGER, allowNull: false },
      },
      { tableName: 'changes', timestamps: false },
    ),
    steps: sequelize.define<StepRow>(
      'step',
      {
        projectId: { type: DataTypes.STRING, primaryKey: true },
        position: { type: DataTypes.INTEGER, primaryKey: true },
        step: text(),
      },
      { tableName: 'steps', timestamps: false },
    ),
    revisions: sequelize.define<RevisionRow>(
      'revision',
      {
        projectId: { type: DataTypes.STRING, primaryKey: true },
        revision: { type: DataTypes.INTEGER, primaryKey: true },
        document: { type: DataTypes.BLOB, allowNull: false },
        savedAt: { type: DataTypes.INTEGER, allowNull: false },
      },
      { tableName: 'revisions', timestamps: false },
    ),
    footage: sequelize.define<FootageRow>(
      'footage',
      {
        id: id(),
        projectId: text(),
        name: text(),
        role: text(),
        status: text(),
        error: DataTypes.TEXT,
        notes: text(),
        file: text(),
        bytes: { type: DataTypes.INTEGER, allowNull: false },
        facts: DataTypes.TEXT,
        hasPointer: { type: DataTypes.BOOLEAN, allowNull: false },
        tags: { ...text(), defaultValue: '[]' },
        inPoint: DataTypes.BIGINT,
        outPoint: DataTypes.BIGINT,
        origin: DataTypes.STRING,
        deletedAt: DataTypes.DATE,
        ...dates(),
      },
      { tableName: 'footage' },
    ),
    jobs: sequelize.define<JobRow>(
      'job',
      {
        id: id(),
        type: text(),
        projectId: text(),
        subject: text(),
        status: text(),
        progress: { type: DataTypes.FLOAT, allowNull: false },
        message: text(),
        attempts: { type: DataTypes.INTEGER, allowNull: false },
        owner: DataTypes.STRING,
        leaseUntil: { type: DataTypes.INTEGER, allowNull: false },
        ...dates(),
      },
      { tableName: 'jobs' },
    ),
    exports: sequelize.define<ExportRow>(
      'export',
      {
        id: id(),
        projectId: text(),
        name: text(),
        settings: text(),
        document: text(),
        result: DataTypes.TEXT,
        proof: DataTypes.TEXT,
        ...dates(),
      },
      { tableName: 'exports' },
    ),
    takes: sequelize.define<TakeRow>(
      'take',
      {
        id: id(),
        projectId: text(),
        stepId: DataTypes.STRING,
        kind: text(),
        number: { type: DataTypes.INTEGER, allowNull: false },
        status: text(),
        reason: DataTypes.STRING,
        seconds: { type: DataTypes.FLOAT, allowNull: false },
        setup: text(),
        footage: text(),
        seenAt: { type: DataTypes.INTEGER, allowNull: false },
        ...dates(),
      },
      { tableName: 'takes' },
    ),
    presets: sequelize.define<PresetRow>(
      'preset',
      { id: id(), kind: text(), name: text(), value: text(), ...dates() },
      { tableName: 'presets' },
    ),
  };
}
