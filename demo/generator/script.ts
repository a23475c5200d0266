/** The narration of the demo tutorial, one entry a step. */
export interface ScriptStep {
  readonly title: string;
  readonly narration: string;
  readonly action: string;
}

export const SCRIPT: readonly ScriptStep[] = [
  {
    title: 'Hello',
    narration:
      'Hello, I am Ilse Varga, studio technician at Saltmarsh Clay. Let us program a glaze firing in Kilnbook.',
    action: 'Presenter full, then the week view.',
  },
  {
    title: 'Open a new firing',
    narration: 'Kilnbook opens on the week view. Open the Firings menu and choose New firing.',
    action: 'Menu Firings, then New firing.',
  },
  {
    title: 'Name it and pick a kiln',
    narration:
      'Give it a name that tells the others what is inside. Then pick the small electric kiln.',
    action: 'Type the name, choose the kiln, Create.',
  },
  {
    title: 'Set the ramp',
    narration:
      'This is the schedule. Type one hundred and twenty degrees an hour for the first ramp. You can also drag the top of the curve. Twelve hundred and twenty two degrees is cone six.',
    action: 'Type the ramp, drag the peak of the chart.',
  },
  {
    title: 'Check the glaze notes',
    narration: 'Scroll through the glaze notes, and read the one for celadon before you load.',
    action: 'Glaze notes scrolled, one opened.',
  },
  {
    title: 'Tell the members',
    narration: 'In the members table, tick the two people who share this kiln.',
    action: 'Members table with addresses and numbers; they are covered.',
  },
  {
    title: 'Book it',
    narration: 'Press Book, confirm, and the firing stands in the week. That is all. Happy firing!',
    action: 'Dialog, then the week view; presenter full again.',
  },
];
