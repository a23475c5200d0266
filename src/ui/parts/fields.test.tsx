/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { NumberField, SliderField, TextField } from './fields';

const number = (onDone: (value: number) => void, value = 30) =>
  render(<NumberField label="Length" unit="s" {...{ value, min: 1, max: 100, step: 1, onDone }} />);

describe('a number', () => {
  test.each<[typed: string, taken: number[]]>([
    ['12{Enter}', [12]],
    ['12.5{Enter}', [12.5]],
    ['0{Enter}', [1]],
    ['-4{Enter}', [1]],
    ['2000{Enter}', [100]],
    // What is no number is put back, and nothing is taken over.
    ['{Enter}', []],
    ['--{Enter}', []],
    ['12{Escape}{Enter}', []],
  ])('%j gives %j', async (typed, taken) => {
    const onDone = jest.fn();
    number(onDone);
    const field = screen.getByLabelText('Length');
    await userEvent.clear(field);
    await userEvent.type(field, typed);
    expect(onDone.mock.calls.flat()).toEqual(taken);
    // Until the new one comes from outside, the old one stands.
    expect(field).toHaveProperty('value', '30');
  });

  test('is taken over when the field is left, once', async () => {
    const onDone = jest.fn();
    number(onDone);
    await userEvent.type(screen.getByLabelText('Length'), '7');
    await userEvent.tab();
    expect(onDone.mock.calls).toEqual([[100]]);
  });

  test('only passed through, it takes nothing over', async () => {
    const onDone = jest.fn();
    number(onDone);
    await userEvent.tab();
    await userEvent.tab();
    expect(onDone).not.toHaveBeenCalled();
  });
});

describe('a text', () => {
  const text = (onDone: (value: string) => void, more = {}) =>
    render(<TextField label="Name" value="Kiln" onDone={onDone} {...more} />);

  test('is taken over by Enter, not while it is typed, and not when nothing changed', async () => {
    const onDone = jest.fn();
    text(onDone);
    const field = screen.getByLabelText('Name');
    await userEvent.type(field, ' log');
    expect(onDone).not.toHaveBeenCalled();
    await userEvent.keyboard('{Enter}');
    await userEvent.type(field, '{Enter}');
    expect(onDone.mock.calls).toEqual([['Kiln log']]);
  });

  test('of several lines keeps Enter for itself', async () => {
    const onDone = jest.fn();
    text(onDone, { lines: 3 });
    await userEvent.type(screen.getByLabelText('Name'), '{Enter}log');
    expect(onDone).not.toHaveBeenCalled();
    await userEvent.tab();
    expect(onDone.mock.calls).toEqual([['Kiln\nlog']]);
  });

  test('that is too long is not taken, says so, and stays to be shortened', async () => {
    const onDone = jest.fn();
    text(onDone, { most: 6 });
    const field = screen.getByLabelText('Name');
    await userEvent.type(field, ' logs');
    expect(screen.getByRole('alert').textContent).toMatch(/Up to 6 characters; these are 9/);
    await userEvent.tab();
    expect(onDone).not.toHaveBeenCalled();
    expect(field).toHaveProperty('value', 'Kiln logs');
    // A picture of two halves is one character.
    await userEvent.clear(field);
    await userEvent.type(field, 'Kiln 🏺');
    expect(screen.queryByRole('alert')).toBeNull();
    await userEvent.tab();
    expect(onDone.mock.calls).toEqual([['Kiln 🏺']]);
  });

  test('that is too long is there again with its field, until it is taken back', async () => {
    const onDone = jest.fn();
    const field = () => screen.getByLabelText('Name');
    const first = text(onDone, { most: 6, of: 'one' });
    await userEvent.type(field(), ' logs');
    first.unmount();
    const other = text(onDone, { most: 6, of: 'two' });
    expect(field()).toHaveProperty('value', 'Kiln');
    other.unmount();
    const again = text(onDone, { most: 6, of: 'one' });
    expect(field()).toHaveProperty('value', 'Kiln logs');
    expect(screen.getByRole('alert').textContent).toMatch(/these are 9/);
    await userEvent.type(field(), '{Escape}');
    again.unmount();
    text(onDone, { most: 6, of: 'one' });
    expect(field()).toHaveProperty('value', 'Kiln');
    expect(onDone).not.toHaveBeenCalled();
  });

  test('that is too long is not the next one’s, when the field shows that instead', async () => {
    const onDone = jest.fn();
    const field = () => screen.getByLabelText('Name');
    const shown = { label: 'Name', most: 6, onDone };
    const { rerender } = render(<TextField {...shown} value="Kiln" of="a" />);
    await userEvent.type(field(), ' logs');
    rerender(<TextField {...shown} value="Glaze" of="b" />);
    expect(field()).toHaveProperty('value', 'Glaze');
    await userEvent.type(field(), 's{Enter}');
    rerender(<TextField {...shown} value="Kiln" of="a" />);
    expect(field()).toHaveProperty('value', 'Kiln logs');
    expect(onDone.mock.calls).toEqual([['Glazes']]);
  });

  test('that asks for the keys is overwritten by what is typed next', async () => {
    const onDone = jest.fn();
    text(onDone, { focus: true });
    await userEvent.keyboard('Glaze{Enter}');
    expect(onDone.mock.calls).toEqual([['Glaze']]);
  });
});

describe('a number that can be dragged or typed', () => {
  const slider = (onChange: (value: number) => void, value = 0.3) =>
    render(
      <SliderField
        {...{ label: 'Size', value, min: 0.05, max: 1, step: 0.01, unit: '%', onChange }}
        {...{ factor: 100, usual: 0.3, show: (v: number) => (v * 100).toFixed(0) }}
      />,
    );

  test.each<[typed: string, taken: number[]]>([
    ['40{Enter}', [0.4]],
    ['300{Enter}', [1]],
    ['0{Enter}', [0.05]],
    ['nothing{Enter}', []],
    ['40{Escape}{Enter}', []],
    ['{ArrowUp}', [0.31]],
    ['{Shift>}{ArrowDown}{/Shift}', [0.2]],
  ])('typed as %j in the unit that is shown, it is %j', async (typed, taken) => {
    const onChange = jest.fn();
    slider(onChange);
    await userEvent.click(screen.getByRole('textbox', { name: 'Size, number' }));
    await userEvent.keyboard(typed);
    expect(onChange.mock.calls.flat()).toHaveLength(taken.length);
    taken.forEach((value, i) => expect(onChange.mock.calls.flat()[i]).toBeCloseTo(value, 9));
  });

  test('is set back to what is usual, and only where it differs', async () => {
    const onChange = jest.fn();
    const { unmount } = slider(onChange);
    expect(screen.queryByRole('button')).toBeNull();
    unmount();
    slider(onChange, 0.5);
    await userEvent.click(screen.getByRole('button', { name: 'Set Size back to 30 %' }));
    expect(onChange.mock.calls).toEqual([[0.3]]);
  });
});
