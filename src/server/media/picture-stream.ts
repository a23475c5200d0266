import { frameArguments, type StreamFacts, type StreamOptions } from './frame-stream';
import { PipeReader } from './pipe';

/** What a stream of bare pictures may be: luma on a ground, or all of it at a small size. */
export type BareOptions = StreamOptions &
  (Required<Pick<StreamOptions, 'luma'>> | Required<Pick<StreamOptions, 'small'>>);

/**
 * A recording's pictures at a steady rate, one after the other: their luma, or all of them at a
 * small size. Reading waits.
 */
export class PictureStream {
  private readonly reader: PipeReader;
  private any = false;

  constructor(path: string, facts: StreamFacts, options: BareOptions) {
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
