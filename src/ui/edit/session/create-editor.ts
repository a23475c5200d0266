import { createStore, type StoreApi } from 'zustand';
import type { OpenedProject } from '@/contract/projects';
import { projectDuration } from '@/core/project/query';
import { NO_SOURCES } from '@/core/project/sources';
import { documentSlice } from './document-slice';
import { followSlice } from './follow-slice';
import { lineUpSlice } from './line-up-slice';
import { privateSlice } from './private-slice';
import { planSlice } from './plan-slice';
import type { EditorState, SelectionSlice, ServerSlice, WorkspaceSlice } from './state';
import { createTransport } from './transport';
import { selectionOf } from './selection-of';
import { recall } from './workspace-memory';

const NOTHING_SELECTED: Omit<SelectionSlice, 'select'> = {
  selection: null,
  also: [],
  range: { in: null, out: null },
  rangeLanes: null,
  openGroup: null,
};

const WORKSPACE: WorkspaceSlice = {
  panel: 'steps',
  dialog: null,
  pixelsPerSecond: 12,
  scaleChosen: false,
  snapping: true,
  large: false,
  softText: false,
  arriving: null,
  view: {},
  picking: null,
  drawing: null,
  drawsShapes: false,
  mendsWay: false,
  savedLayouts: [],
  typeInto: null,
  restingOn: null,
};

const NOTHING_TOLD: ServerSlice = {
  connected: true,
  footage: [],
  jobs: [],
  exports: [],
  takes: [],
  analyses: [],
  sources: NO_SOURCES,
};

/** The state of an open project. */
export function createEditor(opened: OpenedProject): StoreApi<EditorState> {
  const kept = recall(opened.id);
  const selection = selectionOf(opened.project, kept?.selected ?? null);
  const found: Partial<EditorState> = kept
    ? {
        ...(kept.scale === null ? {} : { pixelsPerSecond: kept.scale, scaleChosen: true }),
        panel: kept.panel === 'details' && !selection ? 'steps' : kept.panel,
        selection,
        also: selection ? kept.also.filter((id) => selectionOf(opened.project, id)) : [],
      }
    : {};
  return createStore<EditorState>()((set, get) => ({
    ...documentSlice(set, get, opened),
    ...NOTHING_SELECTED,
    ...WORKSPACE,
    ...NOTHING_TOLD,
    ...planSlice(set, get),
    ...followSlice(set, get),
    ...lineUpSlice(set, get),
    ...privateSlice(set, get),
    ...found,
    transport: createTransport(Math.min(kept?.playhead ?? 0, projectDuration(opened.project))),
    select: (selection, also = []) =>
      set({
        selection,
        also,
        view: {},
        picking: null,
        drawing: null,
        panel: selection ? 'details' : get().panel === 'details' ? 'steps' : get().panel,
      }),
    set: (change) => set(change),
  }));
}
