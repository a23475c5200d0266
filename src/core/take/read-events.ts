import { isOf } from '../schema/check-plain';
import { TakeEvent } from './take';

/**
 * Reads a take's data; a last line that was cut off, and lines that make no sense, are passed over.
 */
export function readTakeEvents(data: string): TakeEvent[] {
  return data.split('\n').flatMap((one) => {
    if (!one) return [];
    try {
      const event: unknown = JSON.parse(one);
      return isOf(TakeEvent, event) ? [event] : [];
    } catch (error) {
      if (!(error instanceof SyntaxError)) throw error;
      return [];
    }
  });
}
