import type { MediaFacts } from '@/contract/footage';
import { frameArguments, type StreamOptions } from './frame-stream';
import { PipeReader } from './pipe';

/** The luma of a recording's pictures at a steady rate, one after the other. Reading waits. */
export class LumaStream {
  private readonly reader: PipeReader;
  private any = false;

  constructor(
    path: string,
    facts: MediaFacts,
    options: StreamOptions & Required<Pick<StreamOptions, 'luma'>>,
  ) {
    this.reader = new PipeReader(frameArguments(path, facts, options, 'rawvideo'));
  }

  /**
   * Reads the next picture; false at the recording's end.
   *
   * @throws Problem when there was not a single one, `Interrupted` when somebody ended the decoder
   */
  read(into: Uint8Array): boolean {
    if (this.reader.read(into)) return (this.any = true);
    if (!this.any) throw this.reader.whyEmpty();
    this.reader.checkEnd();
    return false;
  }

  [Symbol.dispose](): void {
    this.reader.close();
  }
}
