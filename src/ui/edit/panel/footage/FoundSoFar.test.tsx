/** @jest-environment jsdom */
import { render, screen } from '@testing-library/react';
import type { SightSoFar } from '@/core/vision/so-far';
import { FoundSoFar } from './FoundSoFar';

const SHAPE = { width: 1920, height: 1080 };
const soFar: SightSoFar = {
  until: 32_400,
  pointer: 0.9,
  path: [[0, 0], [500, 500], null, [250, 750], [1000, 1000]],
  presses: [[500, 500]],
};

test('the path so far is drawn, broken where the pointer was not found, with its presses', () => {
  render(<FoundSoFar summary={{ soFar }} shape={SHAPE} />);
  const drawing = screen.getByRole('img', { name: 'The pointer’s path so far' });
  expect(drawing.querySelector('path')!.getAttribute('d')).toBe(
    'M0.0 0.0L160.0 90.0M80.0 135.0L320.0 180.0',
  );
  expect(drawing.querySelectorAll('circle')).toHaveLength(1);
  expect(
    screen.getByText('Pointer found in 90 % of the first 0:32, 1 press inferred.'),
  ).toBeTruthy();
});

test('before a pointer was found it says so, and of other summaries nothing', () => {
  const none = { until: 5000, pointer: 0, path: [], presses: [] };
  const { rerender } = render(<FoundSoFar summary={{ soFar: none }} shape={SHAPE} />);
  expect(screen.getByText('No pointer in the first 0:05 yet.')).toBeTruthy();
  expect(screen.queryByRole('img')).toBeNull();
  rerender(<FoundSoFar summary={{ pointer: 1, soFar: { until: 'late' } }} shape={SHAPE} />);
  expect(screen.queryByText(/pointer/i)).toBeNull();
});
