/** @jest-environment jsdom */
import { act, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { Dialog } from '../parts/Dialog';
import { NumberField } from '../parts/fields';
import { Notices } from './Notices';
import { tell, tellFault, useNotices } from './notices-store';

// The tests' page has no pointers that are captured.
HTMLElement.prototype.hasPointerCapture = () => false;
beforeEach(() => useNotices.setState({ notices: [] }));

const shown = () =>
  within(screen.getByRole('region', { name: /^Messages/, hidden: true }))
    .queryAllByRole('listitem', { hidden: true })
    .map((item) => item.textContent);

const withDialog = (onClose: () => void) =>
  render(
    <>
      <Dialog open onClose={onClose} title="Rename" description="The name.">
        <input aria-label="Name" />
      </Dialog>
      <Notices />
    </>,
  );

test('messages stand in turn, three at most, each text once', () => {
  render(<Notices />);
  act(() => ['one', 'two', 'one', 'three', 'four'].forEach((text) => tell(text)));
  expect(shown()).toEqual(['one', 'three', 'four']);
});

test('what a message offers is done once, and the message goes', async () => {
  const run = jest.fn();
  render(<Notices />);
  act(() => tell('Step 2 was removed.', { label: 'Undo', run }));
  await userEvent.click(screen.getByRole('button', { name: 'Undo' }));
  expect(run).toHaveBeenCalledTimes(1);
  expect(shown()).toEqual([]);
});

test('Escape is the dialog’s, also while a message lies over it; the message stays', async () => {
  const onClose = jest.fn();
  withDialog(onClose);
  act(() => tellFault('The name is taken.'));
  await userEvent.click(screen.getByLabelText('Name'));
  await userEvent.keyboard('{Escape}');
  expect(onClose).toHaveBeenCalledTimes(1);
  expect(shown()).toEqual(['The name is taken.']);
});

test('without a message a dialog closes once for one Escape', async () => {
  const onClose = jest.fn();
  withDialog(onClose);
  await userEvent.click(screen.getByLabelText('Name'));
  await userEvent.keyboard('{Escape}');
  expect(onClose).toHaveBeenCalledTimes(1);
});

test('Escape takes back what is typed in a field first, with and without a message', async () => {
  const [onClose, onDone] = [jest.fn(), jest.fn()];
  render(
    <>
      <Dialog open onClose={onClose} title="Freeze frame" description="How long.">
        <NumberField label="Length" unit="s" {...{ value: 2, min: 1, max: 9, step: 1, onDone }} />
      </Dialog>
      <Notices />
    </>,
  );
  for (const [message, closed] of [
    [null, 1],
    ['Saved.', 2],
  ] as const) {
    act(() => void (message && tell(message)));
    const field = screen.getByLabelText('Length');
    await userEvent.type(field, '7');
    await userEvent.keyboard('{Escape}');
    expect(onClose).toHaveBeenCalledTimes(closed - 1);
    expect(field).toHaveProperty('value', '2');
    await userEvent.keyboard('{Escape}');
    expect(onClose).toHaveBeenCalledTimes(closed);
  }
  expect(onDone).not.toHaveBeenCalled();
});

test('Escape where nothing else is open leaves a message; with the focus in it, it closes it', async () => {
  render(<Notices />);
  act(() => tell('Saved.'));
  await userEvent.keyboard('{Escape}');
  expect(shown()).toEqual(['Saved.']);
  act(() => screen.getByRole('button', { name: 'Close message' }).focus());
  await userEvent.keyboard('{Escape}');
  expect(shown()).toEqual([]);
});
