import type { History, Versioned } from '@/core/edit/history';
import type { HistoryDelta } from '@/core/edit/history-delta';
import type { Project } from '@/core/project/model';
import type { TargetId } from '@/core/project/targets';
import type { FrameRate } from '@/core/time/ticks';
import { route } from './route';

/** A project as the list tells it. */
export interface ProjectSummary {
  readonly id: string;
  readonly name: string;
  /** Null when its document can't be read, which opening it tells more of. */
  readonly picture: {
    readonly width: number;
    readonly height: number;
    readonly frameRate: FrameRate;
    readonly seconds: number;
  } | null;
  readonly changedAt: string;
  /** Footage whose thumbnail stands for the project. */
  readonly poster: string | null;
}

export interface NewProject {
  readonly name: string;
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate;
  readonly target?: TargetId;
}

export interface ProjectChange {
  readonly name?: string;
  readonly deleted?: boolean;
}

/** Size and rate that would fit the footage of a project. */
export interface CanvasSuggestion {
  readonly width: number;
  readonly height: number;
  readonly frameRate: FrameRate | null;
}

/** A project with its document. */
export interface OpenedProject {
  readonly id: string;
  readonly name: string;
  readonly project: Project;
  readonly history: History;
  readonly revision: number;
  readonly suggestion: CanvasSuggestion | null;
  /** Sentences on what was damaged and put right. */
  readonly notes: readonly string[];
}

/** The revision that a damaged project can be opened at. */
export interface GoodRevision {
  readonly revision: number;
  /** ISO 8601. */
  readonly savedAt: string;
}

/** A state of a project as the server has it, or is to have it after that revision. */
export interface Saved extends Versioned {
  readonly revision: number;
}

/** What was changed in a document. */
export interface ChangeSave {
  /** The revision that it was made for. */
  readonly base: number;
  /** Names this save: sent again, because its answer was lost, it is known. */
  readonly key: string;
  readonly delta: HistoryDelta;
}

export interface Revised {
  readonly revision: number;
}

/** What was changed since a revision; null for `deltas` when that is not known step by step. */
export interface ChangesSince extends Revised {
  readonly deltas: readonly unknown[] | null;
}

export const listProjects = route<readonly ProjectSummary[]>()('GET', '/api/projects');
export const createProject = route<{ readonly id: string }, NewProject>()('POST', '/api/projects');
export const openProject = route<OpenedProject>()('GET', '/api/projects/:id');
export const saveProject = route<Revised, Saved>()('PUT', '/api/projects/:id');
export const changeProject = route<null, ProjectChange>()('PATCH', '/api/projects/:id');
export const duplicateProject = route<{ readonly id: string }>()(
  'POST',
  '/api/projects/:id/duplicate',
);
/** Opens a damaged project at its last good revision. */
export const openLastGood = route<Revised, Revised>()('POST', '/api/projects/:id/last-good');
/** Takes the revision as `since`. */
export const readChanges = route<ChangesSince>()('GET', '/api/projects/:id/changes');
export const saveChange = route<Revised, ChangeSave>()('POST', '/api/projects/:id/changes');
