export const QUALITIES = ['small', 'good', 'high'] as const;
export type Quality = (typeof QUALITIES)[number];

export const FORMATS = ['mp4', 'mov', 'webm', 'av1', 'gif', 'm4a', 'mp3', 'wav', 'png'] as const;
export type Format = (typeof FORMATS)[number];

/** What a format holds, and how files of it are called. */
export interface FormatFacts {
  readonly picture: 'video' | 'still' | null;
  readonly sound: boolean;
  readonly extension: string;
  readonly mime: string;
  /** Whether the picture may be held to a bit rate. */
  readonly bitRate: boolean;
}

export const FORMAT_FACTS: Record<Format, FormatFacts> = {
  mp4: { picture: 'video', sound: true, extension: 'mp4', mime: 'video/mp4', bitRate: true },
  mov: { picture: 'video', sound: true, extension: 'mov', mime: 'video/quicktime', bitRate: true },
  webm: { picture: 'video', sound: true, extension: 'webm', mime: 'video/webm', bitRate: true },
  av1: { picture: 'video', sound: true, extension: 'webm', mime: 'video/webm', bitRate: true },
  gif: { picture: 'video', sound: false, extension: 'gif', mime: 'image/gif', bitRate: false },
  m4a: { picture: null, sound: true, extension: 'm4a', mime: 'audio/mp4', bitRate: false },
  mp3: { picture: null, sound: true, extension: 'mp3', mime: 'audio/mpeg', bitRate: false },
  wav: { picture: null, sound: true, extension: 'wav', mime: 'audio/wav', bitRate: false },
  png: { picture: 'still', sound: false, extension: 'png', mime: 'image/png', bitRate: false },
};
