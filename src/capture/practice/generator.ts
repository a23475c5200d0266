declare const MediaStreamTrackGenerator: new (options: {
  kind: 'video';
}) => MediaStreamTrack & { readonly writable: WritableStream<VideoFrame> };

/**
 * Whether this browser lets a page make a picture source of its own, as the practice devices do.
 */
export const canPractise = (): boolean => typeof MediaStreamTrackGenerator !== 'undefined';

/** A picture source whose frames a worker writes. */
export function pictureSource(worker: Worker, message: object): MediaStreamTrack {
  const generator = new MediaStreamTrackGenerator({ kind: 'video' });
  worker.postMessage({ ...message, writable: generator.writable }, [
    generator.writable as unknown as Transferable,
  ]);
  return generator;
}
