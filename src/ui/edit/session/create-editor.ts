import { createStore, type StoreApi } from 'zustand';
import type { OpenedProject } from '@/contract/projects';
import { NO_SOURCES } from '@/core/project/sources';
import { documentSlice } from './document-slice';
import { planSlice } from './plan-slice';
import type { EditorState, SelectionSlice, ServerSlice, WorkspaceSlice } from './state';
import { createTransport } from './transport';

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
  snapping: true,
  arriving: null,
  view: {},
  picking: false,
  drawing: null,
  typeInto: null,
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
export const createEditor = (opened: OpenedProject): StoreApi<EditorState> =>
  createStore<EditorState>()((set, get) => ({
    ...documentSlice(set, get, opened),
    ...NOTHING_SELECTED,
    ...WORKSPACE,
    ...NOTHING_TOLD,
    ...planSlice(set, get),
    transport: createTransport(),
    select: (selection, also = []) =>
      set({
        selection,
        also,
        view: {},
        picking: false,
        drawing: null,
        panel: selection ? 'details' : get().panel === 'details' ? 'steps' : get().panel,
      }),
    set: (change) => set(change),
  }));
